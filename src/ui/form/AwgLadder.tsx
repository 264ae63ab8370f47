import { FormControl, FormHelperText, FormLabel } from '@mui/material'
import { conductors } from '@/core/units/tables/conductors'
import styles from './AwgLadder.module.css'

interface Props {
  name: string
  label: string
  value: unknown
  sizes: readonly string[]
  onChange: (size: string | undefined) => void
  optional: boolean
  problem?: string
}

const thickest = Math.max(...conductors.map(c => c.circularMils))
/** Diameter of a rung in px: as the wire's, the thickest 26. */
const diameter = (size: string) =>
  26 * Math.sqrt((conductors.find(c => c.size === size)?.circularMils ?? 0) / thickest)

/** The sizes as wires seen end-on, thin to thick, each drawn to scale; arrow keys step from one to the next. */
export function AwgLadder({ name, label, value, sizes, onChange, optional, problem }: Props) {
  return (
    <FormControl component="fieldset" error={problem !== undefined} fullWidth>
      <FormLabel component="legend">
        {label}
        {optional ? ' (optional)' : ''}, AWG
      </FormLabel>
      <div className={styles.ladder}>
        {sizes.map((size, n) => (
          <label key={size} data-on={size === value}>
            <input
              type="radio"
              id={n === 0 ? name : undefined}
              name={name}
              checked={size === value}
              aria-label={`${size} AWG`}
              onChange={() => onChange(size)}
            />
            <span className={styles.wire}>
              <i style={{ width: diameter(size), height: diameter(size) }} />
            </span>
            <span>{size}</span>
          </label>
        ))}
        {optional && (
          <label data-on={value === undefined}>
            <input
              type="radio"
              name={name}
              checked={value === undefined}
              onChange={() => onChange(undefined)}
            />
            <span className={styles.wire} />
            <span>none</span>
          </label>
        )}
      </div>
      {problem && <FormHelperText>{problem}</FormHelperText>}
    </FormControl>
  )
}
