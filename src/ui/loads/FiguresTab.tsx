import { Box, Button, ToggleButton } from '@mui/material'
import { type ReactNode, useState } from 'react'
import type { LoadRow } from '@/core/assess/loads-overview'
import { sourcesOf, withChosenStart } from '@/core/loads/evidence'
import { type Figure, type FigureKey, figureKeys, type Known, startFigure } from '@/core/loads/load'
import { rangeOf } from '@/core/loads/uncertainty'
import { figure, quantity } from '@/core/units/format'
import { Columns, Quiet, Row } from '../common/pieces'
import { LoadDialog } from '../panel/LoadDialog'
import { useWorkspace } from '../workspace/store'
import { From } from './From'

const rows: Record<FigureKey, { label: string; show: (value: number) => string }> = {
  runningW: { label: 'Running', show: v => quantity(v, 'W') },
  dutyFraction: { label: 'Runs', show: v => `${figure(100 * v)} % of the time` },
  idleW: { label: 'Idle', show: v => quantity(v, 'W') },
  powerFactor: { label: 'Power factor', show: v => figure(v) },
}

/** Each figure by every source that has it; the one in force is marked, and another is one press away. */
export function FiguresTab({ row: { load, circuitId } }: { row: LoadRow }) {
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const [editing, setEditing] = useState(false)
  const choose = (key: FigureKey, was: Figure, known: Known) => {
    const [best] = sourcesOf(was)
    const from = known === best || known.from === best?.from ? null : known.from
    const [fault] = act({ op: 'chooseFigure', circuitId, loadId: load.id, figure: key, from })
    if (fault) say(`Not changed: ${fault.message}`)
  }
  const starts = [load.start, ...(load.otherStarts ?? [])].filter(s => s !== undefined)
  return (
    <>
      {figureKeys.map(key => {
        const was = load[key]
        const { label, show } = rows[key]
        return (
          <Sources key={key} label={label}>
            {sourcesOf(was).map(known => {
              const range = rangeOf(
                known,
                key === 'dutyFraction' || key === 'powerFactor' ? 'share' : 'watts',
              )
              const here = known.from === was.from
              return (
                <Source
                  key={known.from}
                  here={here}
                  figure={show(known.value)}
                  from={known.from}
                  onChoose={() => choose(key, was, known)}
                >
                  {key !== 'powerFactor' &&
                    range.high > range.low &&
                    `${show(range.low)} to ${show(range.high)}. `}
                  {known.document} {known.on}
                  {known.atC !== undefined && `, at ${quantity(known.atC, 'C')} outdoors`}
                  {here && was.chosen && ' · chosen by hand'}
                </Source>
              )
            })}
          </Sources>
        )
      })}
      <Sources label="Start">
        {starts.map((start, n) => {
          const known = startFigure(start)
          return (
            <Source
              key={`${start.method} ${known.from}`}
              here={n === 0}
              figure={
                start.method === 'multiple' ? `${figure(known.value)} × running` : quantity(known.value, 'A')
              }
              from={known.from}
              onChoose={() => act({ op: 'putLoad', circuitId, load: withChosenStart(load, n) })}
            >
              {startWords[start.method]} {known.document} {known.on}
            </Source>
          )
        })}
        {!starts.length && (
          <Quiet>
            {load.nature === 'plain' ? 'none to speak of' : 'not known: five times running is assumed'}
          </Quiet>
        )}
      </Sources>
      <Quiet>
        The better source counts, and all are kept: press another to have it count instead. Energy wants a
        meter; a start wants inrush hold or the nameplate’s LRA.
      </Quiet>
      <Row>
        <Button variant="outlined" onClick={() => setEditing(true)}>
          Edit the figures
        </Button>
      </Row>
      {editing && <LoadDialog circuitId={circuitId} load={load} onClose={() => setEditing(false)} />}
    </>
  )
}

const startWords = { inrush: 'inrush', 'locked-rotor': 'locked rotor', multiple: 'multiple' } as const

const Sources = ({ label, children }: { label: string; children: ReactNode }) => (
  <Box sx={{ display: 'grid', gridTemplateColumns: { sm: '120px 1fr' }, gap: 1 }}>
    <b>{label}</b>
    <Columns least={170}>{children}</Columns>
  </Box>
)

interface SourceProps {
  here: boolean
  figure: string
  from: Known['from']
  onChoose: () => void
  children: ReactNode
}

/** One source's word on a figure; pressed, it counts. */
const Source = ({ here, figure: told, from, onChoose, children }: SourceProps) => (
  <ToggleButton value={from} selected={here} onChange={onChoose} sx={{ display: 'grid', textAlign: 'left' }}>
    <b>{told}</b>
    <From from={from} />
    <Quiet component="span">{children}</Quiet>
  </ToggleButton>
)
