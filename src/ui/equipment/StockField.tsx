import { FormHelperText, Input } from '@mui/material'
import { useId, useState } from 'react'
import { stockSchema } from '@/core/search/stock'
import { readNumber } from '../form/EditField'

interface Props {
  /** what is counted, for those who hear the field */
  name: string
  count: number | undefined
  onCount: (count: number | null) => Promise<{ message: string } | null>
}

/** How many the firm has: saved when left; a wrong entry stays as typed. */
export function StockField({ name, count, onCount }: Props) {
  const id = useId()
  const [text, setText] = useState(count === undefined ? '' : String(count))
  const [problem, setProblem] = useState<string | null>(null)
  const [known, setKnown] = useState(count)
  if (known !== count) {
    setKnown(count)
    setText(count === undefined ? '' : String(count))
  }
  const commit = async () => {
    if (text.trim() === (count === undefined ? '' : String(count))) return setProblem(null)
    if (text.trim() === '') return setProblem((await onCount(null))?.message ?? null)
    const got = readNumber(stockSchema.valueType)(text)
    setProblem('value' in got ? ((await onCount(got.value))?.message ?? null) : got.problem)
  }
  return (
    <>
      <Input
        value={text}
        onChange={e => setText(e.target.value)}
        onBlur={() => void commit()}
        onKeyDown={e => {
          // what is typed here is not a command of the grid around it
          if (e.key !== 'Tab') e.stopPropagation()
          if (e.key === 'Enter') void commit()
        }}
        error={problem !== null}
        inputProps={{
          'aria-label': `In stock: ${name}`,
          'aria-describedby': problem === null ? undefined : id,
          inputMode: 'numeric',
          autoComplete: 'off',
        }}
      />
      {problem !== null && (
        <FormHelperText id={id} error>
          {problem}
        </FormHelperText>
      )}
    </>
  )
}
