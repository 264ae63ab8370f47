import type { About } from '@/core/ask/evidence'
import { type Eligibility, eligibilityOf } from '@/core/assess/eligibility'
import { circuitNeeds } from '@/core/assess/needs'
import type { Job } from '@/core/job/schema'
import { freeSpaces, positionText, spaceName } from '@/core/panel/positions'
import { type Circuit, circuitSchema, type Panel } from '@/core/panel/schema'
import { toPlan } from '@/core/plan/change'
import { line } from '@/core/quantity'
import { Columns, Terms } from '../common/pieces'
import { Thumbnails } from '../common/Thumbnails'
import { Check } from '../form/Check'
import { Choice } from '../form/Choice'
import { EditField, EditFigure, readText } from '../form/EditField'
import { useWorkspace } from '../workspace/store'

const wireLength = circuitSchema.shape.wire.unwrap().shape.lengthFt.unwrap()

/** What is asked less often: the breaker's own type, ties, what it is for, its half of a tandem, another panel. */
export function CircuitMore({ circuit, panel, job }: { circuit: Circuit; panel: Panel; job: Job }) {
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const jobId = useWorkspace(s => s.id)
  const { id: circuitId, tie } = circuit
  const tell = (faults: ReturnType<typeof act>) => faults[0] && say(`Not changed: it ${faults[0].message}`)
  const house = useWorkspace(s => s.house)
  const plan = useWorkspace(s => s.evaluation.plan)
  // as found it is a fact of the survey; as planned it is to be done
  const mark = (kind: 'lock' | 'guard', checked: boolean, facts: Partial<Circuit>) =>
    tell(
      act(
        house === 'found'
          ? { op: 'editCircuit', circuitId, facts }
          : checked
            ? toPlan({ kind, circuitId })
            : plan.some(c => c.id === `${kind}:${circuitId}`)
              ? { op: 'dropChanges', ids: [`${kind}:${circuitId}`] }
              : { op: 'editCircuit', circuitId, facts },
      ),
    )
  const needs = circuitNeeds(job)
  const need = needs.find(n => n.circuit.id === circuitId)
  const neighbours = panel.circuits.filter(
    c =>
      c.id !== circuitId &&
      c.poles === 1 &&
      c.position % 2 === circuit.position % 2 &&
      Math.abs(c.position - circuit.position) <= 2,
  )
  const shows = (about: About) =>
    (about.kind === 'circuit' || about.kind === 'load') && about.circuitId === circuitId
  const photos = job.photos.filter(p => shows(p.about) || p.marks.some(m => shows(m.about)))
  const others = job.panels.filter(p => p.id !== panel.id)
  return (
    <>
      <Columns least={120}>
        <EditField
          key={`type of ${circuitId}`}
          label="Breaker type"
          value={circuit.type ?? ''}
          help={panel.breakerTypes.length ? `listed: ${panel.breakerTypes.join(', ')}` : 'as printed on it'}
          read={readText(line(20))}
          onCommit={type =>
            act({
              op: 'editCircuit',
              circuitId,
              ...(type ? { facts: { type } } : { facts: {}, clear: ['type'] }),
            })
          }
        />
        <Choice
          label="It carries"
          value={circuit.purpose}
          options={['loads', { value: 'solar', label: 'solar that feeds in' }]}
          onChange={purpose => tell(act({ op: 'editCircuit', circuitId, facts: { purpose } }))}
        />
      </Columns>
      {circuit.wire && (
        <EditFigure
          label="One way to the last outlet"
          unit="ft"
          value={circuit.wire.lengthFt}
          schema={wireLength}
          help="the volts there are told under Wire"
          onCommit={lengthFt =>
            circuit.wire
              ? act({ op: 'editCircuit', circuitId, facts: { wire: { ...circuit.wire, lengthFt } } })
              : []
          }
          onEmpty={() => {
            const { lengthFt: _, ...wire } = circuit.wire ?? {}
            const rest = circuitSchema.shape.wire.safeParse(wire)
            return rest.success && rest.data
              ? act({ op: 'editCircuit', circuitId, facts: { wire: rest.data } })
              : []
          }}
        />
      )}
      {circuit.wire && (
        <Choice
          label="Laid as, terminals"
          value={`${circuit.wire.use ?? ''}|${circuit.wire.terminalC ?? ''}`}
          options={[
            { value: '|', label: 'not said: 60 °C' },
            { value: 'NM cable|', label: 'NM cable: 60 °C' },
            { value: 'raceway|60', label: 'in a raceway, terminals 60 °C' },
            { value: 'raceway|75', label: 'in a raceway, terminals marked 75 °C' },
          ]}
          onChange={value => {
            const [use, terminal] = value.split('|')
            const wire = circuitSchema.shape.wire.safeParse({
              material: circuit.wire?.material,
              size: circuit.wire?.size,
              lengthFt: circuit.wire?.lengthFt,
              ...(use && { use }),
              ...(terminal && { terminalC: Number(terminal) }),
            })
            if (wire.success && wire.data)
              tell(act({ op: 'editCircuit', circuitId, facts: { wire: wire.data } }))
          }}
        />
      )}
      <div>
        <Check
          label="Kept off by a lock while the source feeds the panel"
          checked={circuit.lockedOff ?? false}
          onChange={checked => mark('lock', checked, { lockedOff: checked })}
        />
        {circuit.protection !== 'none' && (
          <Check
            label="A device of that kind at the first outlet too"
            checked={circuit.outletProtection ?? false}
            onChange={checked => mark('guard', checked, { outletProtection: checked })}
          />
        )}
      </div>
      {circuit.poles === 1 && (
        <Choice
          label="Joined to its neighbour"
          value={tie ? `${tie.kind}:${tie.with}` : 'no'}
          options={[
            'no',
            ...neighbours.flatMap(c =>
              (['handle', 'common trip'] as const).map(kind => ({
                value: `${kind}:${c.id}`,
                label: `${kind === 'handle' ? 'handle tie' : 'common trip'} with ${positionText(panel, c)} ${c.label || 'unlabelled'}`,
              })),
            ),
          ]}
          onChange={value => {
            const [kind, partner] = value.split(/:(.*)/)
            const as = kind === 'handle' ? 'handle' : 'common trip'
            tell(
              act(
                house === 'found'
                  ? { op: 'tieBreakers', circuitId, tie: partner ? { with: partner, kind: as } : null }
                  : partner
                    ? toPlan({ kind: 'tie', circuitId, with: partner, tie: as })
                    : {
                        op: 'dropChanges',
                        ids: plan
                          .filter(c => c.kind === 'tie')
                          .flatMap(c => (c.circuitIds.includes(circuitId) ? [c.id] : [])),
                      },
              ),
            )
          }}
        />
      )}
      {others.length > 0 && (
        <Choice
          label="Stands in"
          value={panel.id}
          options={[
            { value: panel.id, label: panel.name },
            ...others.map(p => ({ value: p.id, label: `move to ${p.name}` })),
          ]}
          onChange={toPanelId => {
            const to = job.panels.find(p => p.id === toPanelId)
            if (!to || toPanelId === panel.id) return
            const free = freeSpaces(to.spaces, to.circuits, to.unusable)
            const op = house === 'planned' ? 'planMove' : 'moveBreaker'
            const refusals: string[] = []
            for (const toPosition of free) {
              const [fault] = act({ op, circuitId, toPosition, toPanelId })
              if (!fault)
                return say(
                  `${house === 'planned' ? 'Planned for' : 'Moved to'} ${to.name}, ${spaceName(to, toPosition)}. Its neutral has to follow.`,
                )
              refusals.push(fault.message)
            }
            say(`Not moved: ${refusals[0] ?? `${to.name} has no free space`}`)
          }}
        />
      )}
      <section aria-label="Photographs of this circuit">
        <Thumbnails photos={photos} hrefOf={p => `/jobs/${jobId}/photos#${p.id}`} />
      </section>
      {need && <EligibilityLines verdicts={eligibilityOf(need, needs)} />}
    </>
  )
}

const answers = { yes: 'can', 'with care': 'can, but', no: 'cannot' } as const

/** Which arrangement can carry this circuit, and why not. */
function EligibilityLines({ verdicts }: { verdicts: Eligibility[] }) {
  return (
    <section aria-label="Can be carried by">
      <h3>Can be carried by</h3>
      <Terms
        rows={verdicts.map(v => [
          v.label,
          <>
            <b>{answers[v.answer]}</b> {v.reasons.join('; ')}
          </>,
        ])}
      />
    </section>
  )
}
