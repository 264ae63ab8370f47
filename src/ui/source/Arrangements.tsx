import { Box } from '@mui/material'
import { useMemo } from 'react'
import { arrangementWays } from '@/core/assess/arrangement-ways'
import type { Equipment } from '@/core/equipment'
import { arrangementNames, arrangementSees } from '@/core/source/arrangement'
import type { Source } from '@/core/source/design'
import { sentenceStart, together } from '@/core/units/format'
import { Card, Quiet } from '../common/pieces'
import { Choice } from '../form/Choice'
import { Options } from '../form/Options'
import { useWorkspace } from '../workspace/store'

/** Every arrangement, what the panel would see of it, and what it brings along or why it cannot be. */
export function Arrangements({ source, catalogue }: { source: Source; catalogue: Equipment[] }) {
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const ways = useMemo(() => arrangementWays(source, catalogue), [source, catalogue])
  const oneLeg = source.arrangement === 'one-leg'
  const direct = source.arrangement === 'autotransformer'
  return (
    <Card title="Arrangement" id="arrangement">
      <Options
        label={<span className="visually-hidden">Arrangement</span>}
        row={false}
        value={source.arrangement}
        options={ways.map(({ arrangement, operation, brings, hinders }) => ({
          value: arrangement,
          disabled: !operation,
          label: (
            <Box sx={{ py: 0.5 }}>
              <b>{sentenceStart(arrangementNames[arrangement])}</b>
              <Quiet component="div">
                {hinders ? `Cannot be: ${hinders}.` : arrangementSees[arrangement]}
                {!hinders &&
                  brings.length > 0 &&
                  source.arrangement !== arrangement &&
                  ` With it: ${together(brings)}.`}
              </Quiet>
            </Box>
          ),
        }))}
        onChange={chosen => {
          const way = ways.find(w => w.arrangement === chosen)
          const [fault] = way?.operation ? act(way.operation) : []
          if (fault) say(fault.message)
        }}
      />
      {(oneLeg || direct) && (
        <Choice
          label={oneLeg ? 'Live leg' : 'Leg that the unit feeds directly'}
          value={source.liveLeg}
          options={['L1', 'L2']}
          onChange={liveLeg => act({ op: 'setArrangement', arrangement: source.arrangement, liveLeg })}
        />
      )}
    </Card>
  )
}
