import { Autocomplete, Box, Button, TextField } from '@mui/material'
import { useMemo, useState } from 'react'
import type { Want } from '@/core/ask/brief'
import { thingOf } from '@/core/ask/things'
import { type Making, suggested, type Understood, understood, wantOf } from '@/core/ask/want'

interface Props {
  making: Making
  /** the faults of what was refused */
  onAdd: (wants: Want[]) => readonly { message: string }[]
}

const labelOf = ({ count, name }: Understood) => (count > 1 ? `${count} × ${name}` : name)
const kindOf = (said: Understood) =>
  thingOf(said.thing ?? undefined)?.options.find(o => o.id === said.answers.kind)?.label

/** What must live, by any word: several at once, apart by commas. What nobody knows keeps its words. */
export function AddThing({ making, onAdd }: Props) {
  const [text, setText] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const typical = useMemo(() => making.library.map(e => e.typical), [making.library])
  const options = useMemo(() => suggested(text, typical), [text, typical])
  const add = (said: readonly Understood[]) => {
    if (!said.length) return
    const [fault] = onAdd(said.map(u => wantOf(u, making)))
    setProblem(fault?.message ?? null)
    if (!fault) setText('')
  }
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '1fr auto', gap: 1, alignItems: 'start' }}>
      <Autocomplete<Understood, false, false, true>
        freeSolo
        autoHighlight
        options={options}
        filterOptions={all => all}
        getOptionLabel={option => (typeof option === 'string' ? option : labelOf(option))}
        getOptionKey={option =>
          typeof option === 'string'
            ? option
            : `${option.thing ?? option.typical} ${option.answers.kind ?? ''}`
        }
        renderOption={({ key, ...props }, option) => (
          <li key={key} {...props}>
            <span>
              <b>{labelOf(option)}</b> {kindOf(option)}
            </span>
          </li>
        )}
        inputValue={text}
        value={null}
        onInputChange={(_, next, reason) => {
          if (reason !== 'reset') setText(next)
          setProblem(null)
        }}
        onChange={(_, chosen) =>
          chosen && add(typeof chosen === 'string' ? understood(chosen, typical) : [chosen])
        }
        renderInput={params => (
          <TextField
            {...params}
            label="What must live"
            placeholder="well pump, two refrigerators, oxygen"
            error={problem !== null}
            helperText={problem}
          />
        )}
      />
      <Button variant="outlined" sx={{ minHeight: 40 }} onClick={() => add(understood(text, typical))}>
        Add
      </Button>
    </Box>
  )
}
