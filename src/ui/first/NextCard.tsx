import { Box } from '@mui/material'
import type { FirstAnswer } from '@/core/first/answer'
import { quantity } from '@/core/units/format'
import { Card, Quiet } from '../common/pieces'

const shown = 6
const moves = {
  need: 'the need',
  start: 'which sources can start it',
  price: 'the price',
  unknown: 'everything: it is in no figure yet',
} as const

/** What to ask or measure next, the first narrowing the answer most. */
export function NextCard({ answer: { next } }: { answer: FirstAnswer }) {
  if (!next.length) return null
  return (
    <Card title="Ask or measure next" sx={{ order: 6 }}>
      <Box component="ol" sx={{ m: 0, pl: 2.5 }}>
        {next.slice(0, shown).map(n => (
          <li key={n.key}>
            <b>{n.what}</b>
            <Quiet>
              {n.how} It moves {moves[n.moves]}
              {n.moves !== 'unknown' &&
                `: ${n.narrowsWh ? `the range narrows by ${quantity(n.narrowsWh, 'Wh')} a day` : n.moves === 'start' ? `${quantity(n.share, 'fraction')} of the sources depend on it` : `${quantity(n.share, 'fraction')} of it is open`}`}
              .
            </Quiet>
          </li>
        ))}
      </Box>
    </Card>
  )
}
