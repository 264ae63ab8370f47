'use client'
import Box from '@mui/material/Box'
import { arrangementNames } from '@/core/source/arrangement'
import { arrangementWays, type Way } from '@/core/source/ways'
import { Choice } from '../form/Choice'
import { useWorkspace } from '../workspace/store'

interface Option {
  value: string
  label: string
  operation: NonNullable<Way['operation']>
}

/** The arrangement beside the drawn panel: switch it and watch the legs light up or die. */
export function ArrangeHere() {
  const source = useWorkspace(s => s.job.source)
  const act = useWorkspace(s => s.act)
  if (!source) return null
  const options = arrangementWays(source, []).flatMap(({ arrangement, operation, brings }): Option[] => {
    if (!operation || brings.length) return []
    const name = arrangementNames[arrangement]
    return arrangement === 'one-leg'
      ? (['L1', 'L2'] as const).map(leg => ({
          value: `${arrangement} ${leg}`,
          label: `${name}, ${leg} live`,
          operation: { ...operation, liveLeg: leg },
        }))
      : [{ value: arrangement, label: name, operation }]
  })
  const now = source.arrangement === 'one-leg' ? `one-leg ${source.liveLeg}` : source.arrangement
  return (
    <Box sx={{ flex: '0 0 200px', ml: 'auto' }}>
      <Choice
        label="Arrangement"
        value={now}
        options={options}
        onChange={value => {
          const found = options.find(o => o.value === value)
          if (found) act(found.operation)
        }}
      />
    </Box>
  )
}
