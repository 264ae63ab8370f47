import { Alert, Button, List, ListItem, ListItemText } from '@mui/material'
import { Pencil, Plus, X } from 'lucide-react'
import dynamic from 'next/dynamic'
import { useState } from 'react'
import * as z from 'zod'
import { conditionsOf } from '@/core/ask/outage-asked'
import { circuitNeeds, loadsOf, meanLoad } from '@/core/assess/needs'
import { placeText } from '@/core/job/panels'
import { meanW } from '@/core/loads/draw'
import { type Load, meanProvenance } from '@/core/loads/load'
import { feedOf, legOf, positionText, spaceName, spaceNamed } from '@/core/panel/positions'
import { protectionIds, protections } from '@/core/panel/protection'
import { breakerRatings, type Circuit, circuitSchema } from '@/core/panel/schema'
import { toPlan } from '@/core/plan/change'
import { quantity } from '@/core/units/format'
import { conductorSizes } from '@/core/units/tables/conductors'
import { FindingCard } from '../common/FindingCard'
import { Column, Columns, FigureLink, Quiet, Row } from '../common/pieces'
import { Tool } from '../common/Tool'
import { Choice } from '../form/Choice'
import { EditField, EditFigure, readText } from '../form/EditField'
import { useWorkspace } from '../workspace/store'

const LoadDialog = dynamic(() => import('./LoadDialog').then(m => m.LoadDialog))
const LibraryPicker = dynamic(() => import('../library/LibraryPicker').then(m => m.LibraryPicker))
const CircuitMore = dynamic(() => import('./CircuitMore').then(m => m.CircuitMore))

import { today } from '../common/today'
import type { View } from './inspected'

const nameOf = ({ job, panel }: View, circuit: Circuit) =>
  `${placeText(job, panel, circuit)} ${circuit.label || 'Unlabelled'}`

const positionSchema = z.int('must be a whole number').min(1, 'must be 1 or more')
const protectionOptions = protectionIds.map(value => ({ value, label: protections[value].shown }))

/** Everything about one circuit: fetched when one is opened, not before. */
export function CircuitSheet({ circuit, view }: { circuit: Circuit; view: View }) {
  const act = useWorkspace(s => s.act)
  const select = useWorkspace(s => s.select)
  const say = useWorkspace(s => s.say)
  const { panel } = view
  const { circuits } = panel
  const move = useWorkspace(s => s.move)
  const mine = view.findings.filter(
    f => f.target.view === 'panel' && f.target.circuitIds.includes(circuit.id),
  )
  const [editing, setEditing] = useState<Load | 'new' | null>(null)
  const [picking, setPicking] = useState(false)
  const conditions = conditionsOf(view.job)
  const { id: circuitId } = circuit
  const house = useWorkspace(s => s.house)
  const surveyed = useWorkspace(s => s.job.panels.some(p => p.circuits.some(c => c.id === circuit.id)))
  const edit = (facts: Partial<Circuit>) => act({ op: 'editCircuit', circuitId, facts })
  const tell = (faults: ReturnType<typeof edit>) => faults[0] && say(`Not changed: ${faults[0].message}`)
  const feed = feedOf(panel, circuit)
  const neutral = circuit.neutral.kind === 'shared' ? circuit.neutral.with : circuit.neutral.kind
  const close = (cell: string) => {
    select(null)
    // once it is drawn without this circuit, the keyboard goes on where it came from
    requestAnimationFrame(() => document.querySelector<HTMLElement>(`[data-cell="${cell}"]`)?.focus())
  }
  return (
    <Column>
      <Row sx={{ flexWrap: 'nowrap', alignItems: 'flex-start' }}>
        <h2 style={{ flex: 1, paddingTop: 8, overflowWrap: 'anywhere' }}>{nameOf(view, circuit)}</h2>
        <Tool label="Close the circuit" onClick={() => close(circuitId)} icon={X} />
      </Row>
      <Quiet>
        {feed === 'both' ? '240 V, both legs' : `120 V on ${legOf(panel, circuit.position)}`} ·{' '}
        {tracedText(circuit)}
      </Quiet>
      {mine.map(f => (
        <FindingCard key={f.id + f.sentence} finding={f} here />
      ))}
      {!surveyed && <Alert severity="info">It is planned, and not in the survey.</Alert>}

      <section aria-label="Loads">
        <h3>Loads</h3>
        {circuit.loads.length > 0 && <CircuitAverage circuitId={circuitId} />}
        <List dense disablePadding>
          {circuit.loads.map(load => (
            <ListItem
              key={load.id}
              disableGutters
              divider
              secondaryAction={
                <Tool edge="end" label={`Edit ${load.name}`} onClick={() => setEditing(load)} icon={Pencil} />
              }
            >
              <ListItemText
                primary={<b>{load.name}</b>}
                secondary={`${quantity(load.runningW.value, 'W')} running, ${quantity(meanW(load, conditions), 'W')} on average (${meanProvenance(load).from})${load.byHand ? ' · by hand' : ''}`}
              />
            </ListItem>
          ))}
        </List>
        <Button size="small" startIcon={<Plus size={17} aria-hidden />} onClick={() => setEditing('new')}>
          Add a load
        </Button>
        <Button size="small" onClick={() => setPicking(true)}>
          From the library
        </Button>
      </section>

      <Column component="section" aria-label="Circuit">
        <EditField
          key={`label of ${circuitId}`}
          label="Label"
          value={circuit.label}
          read={readText(circuitSchema.shape.label)}
          onCommit={label => edit({ label })}
        />
        <Columns least={110}>
          <Choice
            label="Breaker"
            value={circuit.breakerA}
            options={breakerRatings.map(value => ({ value, label: `${value} A` }))}
            onChange={breakerA =>
              tell(
                house === 'planned'
                  ? act(toPlan({ kind: 'exchange', circuitId, breakerA }))
                  : edit({ breakerA }),
              )
            }
          />
          <Choice
            label="Poles"
            value={circuit.poles}
            options={[
              { value: 1, label: 'one, 120 V' },
              { value: 2, label: 'two, 240 V' },
            ]}
            onChange={poles => tell(edit({ poles: poles === 2 ? 2 : 1 }))}
          />
        </Columns>
        <Columns least={110}>
          <Choice
            label="Importance"
            value={circuit.tier}
            options={[
              { value: 1, label: '1, must run' },
              { value: 2, label: '2, should run' },
              { value: 3, label: '3, may go' },
            ]}
            onChange={tier => tell(edit({ tier: tier === 1 ? 1 : tier === 2 ? 2 : 3 }))}
          />
          <EditFigure
            key={`position of ${circuitId}`}
            label="Position"
            value={spaceName(panel, circuit.position)}
            schema={positionSchema}
            onCommit={name =>
              act({
                op: house === 'planned' ? 'planMove' : 'moveBreaker',
                circuitId,
                toPosition: spaceNamed(panel, name),
              })
            }
          />
        </Columns>
        <Choice
          label="Neutral"
          value={neutral}
          options={[
            { value: 'own', label: 'its own' },
            { value: 'unknown', label: 'not known' },
            ...circuits
              .filter(c => c.id !== circuitId && c.poles === 1)
              .map(c => ({
                value: c.id,
                label: `shared with ${positionText(panel, c)} ${c.label || 'unlabelled'}`,
              })),
          ]}
          onChange={value =>
            tell(
              edit({
                neutral:
                  value === 'own' || value === 'unknown' ? { kind: value } : { kind: 'shared', with: value },
              }),
            )
          }
        />
        <Columns least={110}>
          <Choice
            label="Wire"
            value={circuit.wire ? `${circuit.wire.size} ${circuit.wire.material}` : 'unknown'}
            options={[
              { value: 'unknown', label: 'not known' },
              ...(['cu', 'al'] as const).flatMap(material =>
                conductorSizes
                  .filter(size => material === 'cu' || size !== '14')
                  .map(size => ({
                    value: `${size} ${material}`,
                    label: `${size} AWG ${material === 'cu' ? 'copper' : 'aluminum'}`,
                  })),
              ),
            ]}
            onChange={value => {
              const [text, material] = value.split(' ')
              const size = conductorSizes.find(s => s === text)
              tell(
                size
                  ? edit({ wire: { ...circuit.wire, size, material: material === 'al' ? 'al' : 'cu' } })
                  : act({ op: 'editCircuit', circuitId, facts: {}, clear: ['wire'] }),
              )
            }}
          />
          <Choice
            label="Protection"
            value={circuit.protection}
            options={protectionOptions}
            onChange={protection => tell(edit({ protection }))}
          />
        </Columns>
        <CircuitMore circuit={circuit} panel={view.panel} job={view.job} />
        <Traced circuit={circuit} />
        <Button onClick={() => move(circuitId)}>Move this breaker (M)</Button>
        <Button
          color="error"
          onClick={() => {
            const planned = house === 'planned'
            tell(
              act(
                !surveyed
                  ? { op: 'dropChanges', ids: [`add:${circuitId}`] }
                  : planned
                    ? toPlan({ kind: 'remove', circuitId })
                    : { op: 'removeCircuit', circuitId },
              ),
            )
            close(`free${circuit.position}${circuit.half ?? ''}`)
            say(
              `${planned ? 'Planned to take out' : 'Removed'} ${positionText(panel, circuit)} ${circuit.label}. Undo brings it back.`,
            )
          }}
        >
          {house === 'planned' ? 'Plan to take it out' : 'Remove this breaker'}
        </Button>
      </Column>
      {picking && (
        <LibraryPicker
          circuitId={circuitId}
          onClose={() => setPicking(false)}
          onAdded={() => setPicking(false)}
        />
      )}
      {editing && (
        <LoadDialog
          key={editing === 'new' ? 'new' : editing.id}
          circuitId={circuitId}
          load={editing === 'new' ? null : editing}
          onClose={() => setEditing(null)}
        />
      )}
    </Column>
  )
}

/** The circuit's average, which opens its working. */
function CircuitAverage({ circuitId }: { circuitId: string }) {
  const job = useWorkspace(s => s.job)
  const showWorking = useWorkspace(s => s.showWorking)
  const need = circuitNeeds(job).find(n => n.circuit.id === circuitId)
  if (!need) return null
  const { W, working } = meanLoad(loadsOf([need]), conditionsOf(job))
  return <FigureLink onClick={() => showWorking(working)}>{quantity(W, 'W')} on average</FigureLink>
}

const tracedText = ({ traced }: Circuit) => {
  if (!traced) return 'no one has seen it die'
  const who = `${traced.by}, ${traced.on}`
  if (traced.found === 'nothing') return `switched off by ${who}: nothing was seen to die`
  const died = traced.died ? ` (${traced.died})` : ''
  return traced.found === 'doubtful' ? `doubtful${died}: ${who}` : `seen to die${died} by ${who}`
}

function Traced({ circuit }: { circuit: Circuit }) {
  const act = useWorkspace(s => s.act)
  const person = useWorkspace(s => s.person)
  return circuit.traced ? (
    <Button onClick={() => act({ op: 'editCircuit', circuitId: circuit.id, facts: {}, clear: ['traced'] })}>
      Mark as not traced
    </Button>
  ) : (
    <Button
      variant="outlined"
      onClick={() => {
        const on = today()
        act({
          op: 'editCircuit',
          circuitId: circuit.id,
          facts: { traced: { by: person, on, found: 'known' } },
        })
      }}
    >
      I saw it die today
    </Button>
  )
}
