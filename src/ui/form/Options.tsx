import { FormControl, FormControlLabel, FormHelperText, FormLabel, Radio, RadioGroup } from '@mui/material'
import { type ReactNode, useId } from 'react'

interface Props {
  label: ReactNode
  /** the heading stands elsewhere, under this id */
  labelledBy?: string
  id?: string
  value: unknown
  options: readonly { value: string | number; label: ReactNode; disabled?: boolean }[]
  onChange: (value: string | number) => void
  /** the chosen one pressed once more: nothing is chosen then */
  onAgain?: () => void
  help?: ReactNode
  problem?: string
  row?: boolean
}

/** One of a few, all in sight; arrow keys step. */
export function Options({
  label,
  labelledBy,
  id,
  value,
  options,
  onChange,
  onAgain,
  help,
  problem,
  row = true,
}: Props) {
  const own = useId()
  return (
    <FormControl error={problem !== undefined} sx={{ minWidth: 0 }}>
      {!labelledBy && <FormLabel id={own}>{label}</FormLabel>}
      <RadioGroup
        row={row}
        name={`${own}-choice`}
        aria-labelledby={labelledBy ?? own}
        value={value === undefined ? '' : String(value)}
        onChange={(_, next) => {
          const found = options.find(o => String(o.value) === next)
          if (found) onChange(found.value)
        }}
      >
        {options.map((o, n) => (
          <FormControlLabel
            key={o.value}
            value={String(o.value)}
            disabled={o.disabled}
            label={o.label}
            control={
              <Radio
                size="small"
                id={n === 0 ? id : undefined}
                onClick={() => o.value === value && onAgain?.()}
              />
            }
          />
        ))}
      </RadioGroup>
      {(problem ?? help) && <FormHelperText>{problem ?? help}</FormHelperText>}
    </FormControl>
  )
}
