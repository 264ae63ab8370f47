import { Box, Typography } from '@mui/material'
import type { ReactNode } from 'react'
import type { FirstAnswer } from '@/core/first/answer'
import type { Band } from '@/core/first/band'
import { quantity, together } from '@/core/units/format'
import type { UnitOfMeasure } from '@/core/working'
import { Card, Column, FigureLink, Quiet } from '../common/pieces'
import { useWorkspace } from '../workspace/store'

/** How big it is: need, what runs together, starts, 240 V; each with how sure it is. */
export function AnswerCard({ answer }: { answer: FirstAnswer }) {
  const showWorking = useWorkspace(s => s.showWorking)
  const { dailyWh, outageWh, labelWh, together: at, starts, v240, hours } = answer
  if (!answer.byWant.length)
    return (
      <Card title="How big">
        <p>Say what must live: one thing is enough for a first answer.</p>
      </Card>
    )
  const [worst, ...others] = starts
  return (
    <Card title="How big" sx={{ order: 2 }}>
      <Column component="dl" spacing={1.25} aria-live="polite">
        <Said
          term="Need of a day"
          band={dailyWh}
          unit="Wh"
          tell={
            <FigureLink onClick={() => showWorking(answer.working)}>
              {quantity(dailyWh.value, 'Wh')}
            </FigureLink>
          }
        />
        {hours !== 24 && (
          <Said term={`Over ${quantity(hours, 'h')}, at the outlets`} band={outageWh} unit="Wh" />
        )}
        <Said term="On the label of a battery, by rule of thumb" band={labelWh} unit="Wh" />
        <Said
          term="Running together"
          band={{ low: at.low, value: at.W, high: at.high }}
          unit="W"
          more={at.byHand ? `with the largest that is switched by hand: ${at.byHand}` : ''}
        />
        <div>
          <dt>Starts to ask for</dt>
          <dd>
            {worst ? (
              <>
                <b>{quantity(worst.needVA, 'VA')}</b> for {worst.name} with what runs
                <Quiet>
                  {quantity(worst.startA.value, 'A')} at {worst.volts} V by itself
                  {worst.guessed &&
                    `, from ${quantity(worst.startA.low, 'A')} to ${quantity(worst.startA.high, 'A')}: read its plate`}
                  {others.length > 0 &&
                    `; then ${together([...new Set(others.slice(0, 3).map(s => s.name))])}`}
                </Quiet>
              </>
            ) : (
              'no motor'
            )}
          </dd>
        </div>
        <div>
          <dt>240 V</dt>
          <dd>
            <b>{v240.length ? 'needed' : 'not needed'}</b>
            {v240.length > 0 && <Quiet>for {together(v240)}</Quiet>}
          </dd>
        </div>
      </Column>
      {answer.unknown.length > 0 && (
        <p>
          <b>Not counted:</b> {together(answer.unknown)}. Say what{' '}
          {answer.unknown.length > 1 ? 'they draw' : 'it draws'}.
        </p>
      )}
      <Quiet>Nine houses in ten lie in the range, if things are as the library says.</Quiet>
    </Card>
  )
}

/** What it rests on, and what could overturn it. */
export function GroundsCard({ answer: { byWant, assumed, overturn } }: { answer: FirstAnswer }) {
  if (!byWant.length) return null
  return (
    <Card title="What it rests on" sx={{ order: 7 }}>
      {assumed.length > 0 && <Sentences title="Assumed" items={assumed} />}
      {overturn.length > 0 && <Sentences title="What could overturn it" items={overturn} />}
    </Card>
  )
}

function Sentences({ title, items }: { title: string; items: readonly string[] }) {
  return (
    <div>
      <h3>{title}</h3>
      <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
        {items.map(item => (
          <li key={item}>{item}</li>
        ))}
      </Box>
    </div>
  )
}

interface SaidProps {
  term: string
  band: Band
  unit: UnitOfMeasure
  tell?: ReactNode
  more?: string
}

/** A figure, its range in words, and as a stretch of water with the figure’s place in it. */
function Said({ term, band, unit, tell, more }: SaidProps) {
  const { low, value, high } = band
  const at = (x: number) => `${high > 0 ? (100 * x) / high : 0}%`
  return (
    <div>
      <dt>{term}</dt>
      <Typography component="dd" variant="h2" sx={{ m: 0 }}>
        {tell ?? quantity(value, unit)}{' '}
        <Quiet component="span">
          {quantity(low, unit)} to {quantity(high, unit)}
        </Quiet>
      </Typography>
      <Box
        aria-hidden
        sx={{ position: 'relative', height: 8, bgcolor: 'divider', borderRadius: 1, overflow: 'hidden' }}
      >
        <Box sx={{ position: 'absolute', inset: 0, left: at(low), bgcolor: 'water.live', opacity: 0.45 }} />
        <Box
          sx={{
            position: 'absolute',
            top: 0,
            bottom: 0,
            width: 3,
            ml: '-1.5px',
            left: at(value),
            bgcolor: 'text.primary',
          }}
        />
      </Box>
      {more && <Quiet>{more}</Quiet>}
    </div>
  )
}
