import { Button } from '@mui/material'
import { circuitNeeds, liveLegOf, named } from '@/core/assess/needs'
import { exchanged, positionProblem, positionsThere } from '@/core/assess/positions'
import { positionSchema } from '@/core/hookup/design'
import { methodOf } from '@/core/hookup/method'
import { breakerAt, positionLeg, positionOf } from '@/core/hookup/position'
import { plural, quantity, together } from '@/core/units/format'
import { Card, Quiet } from '../common/pieces'
import { Sortable, SortableItem } from '../common/Sortable'
import { Check } from '../form/Check'
import { Choice } from '../form/Choice'
import { EditFigure } from '../form/EditField'
import { useWorkspace } from '../workspace/store'
import styles from './Hookup.module.css'
import { SolveTools } from './SolveTools'
import { usePositions } from './usePositions'

const breakerA = positionSchema.shape.breakerA.unwrap()

/** Which circuit on which position: solved at a press, pinned by hand, with the price of each pin. */
export function PositionsDesk() {
  const job = useWorkspace(s => s.job)
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const { busy, plan, ms, trouble, solve, stop } = usePositions()
  if (methodOf(job.hookup.method).serves !== 'positions') return null
  const there = positionsThere(job.hookup)
  const device = job.hookup.switch ?? job.hookup.managed
  const needs = circuitNeeds(job).filter(n => n.circuit.picked && !n.feeds)
  if (there === null || !device)
    return (
      <Card title="Switch positions" id="positions">
        <p>No switch is chosen: choose one above, then its positions are filled here.</p>
      </Card>
    )
  const set = job.hookup.positions ?? []
  const at = (position: number) => {
    const own = set.find(p => p.position === position)
    if (own) return { ...own, lower: false }
    const above = set.find(p => p.position === position - 1)
    const two = needs.find(n => n.circuit.id === above?.circuitId)?.circuit.poles === 2
    return above && two ? { ...above, lower: true } : null
  }
  const put = (positions: typeof set) => {
    const [fault] = act({ op: 'setPositions', positions })
    if (fault) say(fault.message)
  }
  const exchange = (position: number, planned: { breakerA?: number }) => {
    const here = set.find(p => p.position === position)
    if (!here) return []
    const { breakerA: _, ...rest } = here
    return act({ op: 'setPositions', positions: set.map(p => (p === here ? { ...rest, ...planned } : p)) })
  }
  const run = (pinned = set) => {
    const problem = positionProblem({ job: { ...job, hookup: { ...job.hookup, positions: pinned } }, needs })
    if (!problem) return say('Choose a source first: its arrangement says which legs the positions are on.')
    solve(problem, found => put(found.positions))
  }
  const place = (position: number, circuitId: string) => {
    const others = set.filter(p => p.circuitId !== circuitId && p.position !== position)
    put(
      circuitId
        ? [...others, { position, circuitId, pinned: true }]
        : set.filter(p => p.position !== position),
    )
  }
  const nameAt = ({ position }: { position: number }) => {
    const circuit = needs.find(n => n.circuit.id === at(position)?.circuitId)
    return circuit ? named(circuit) : `position ${position}`
  }
  const unplaced = needs.filter(n => n.place === null && set.length)
  const cost = (id: string) => plan?.pinCosts.find(p => p.circuitId === id)
  return (
    <Card
      aria-label="Switch positions"
      id="positions"
      title={`Switch positions, ${
        together([job.hookup.switch, job.hookup.secondSwitch].flatMap(d => (d ? [d.name] : []))) ||
        device.name
      } (${there})`}
      tools={
        <>
          <SolveTools
            label={set.length ? 'Solve again' : 'Solve the positions'}
            busy={busy}
            onSolve={() => run()}
            onStop={stop}
            onLoosen={
              set.some(p => p.pinned) ? () => run(set.map(p => ({ ...p, pinned: false }))) : undefined
            }
          />
          {set.length > 0 && (
            <Button size="small" onClick={() => act({ op: 'setHookup', facts: {}, clear: ['positions'] })}>
              Clear
            </Button>
          )}
        </>
      }
    >
      <Quiet role="status">
        {busy
          ? 'Solving…'
          : plan
            ? `${plan.balanced ? `${quantity(plan.imbalanceFraction, 'fraction')} out of balance over the day` : 'The legs are one supply here, so there is nothing to balance'}: ${quantity(plan.legVA.L1, 'VA')} on L1 and ${quantity(plan.legVA.L2, 'VA')} on L2 on average; solved exactly in ${Math.round(ms)} ms.`
            : 'Odd positions are on L1, even ones on L2. What must run comes first, then the balance of what really runs, then heavy positions for heavy breakers.'}
      </Quiet>
      {trouble && <p role="alert">{trouble}</p>}
      <ol className={styles.positions}>
        <Sortable
          exchange
          items={Array.from({ length: there }, (_, i) => ({ id: `at ${i + 1}`, position: i + 1 }))}
          nameOf={nameAt}
          onMove={(from, to) => put(exchanged(set, from + 1, to + 1))}
        >
          {item => {
            const { position } = item
            const here = at(position)
            const limit = breakerAt(job.hookup, position)
            const leg = positionLeg(job.hookup, position, liveLegOf(job))
            const price = here && cost(here.circuitId)
            const built = positionOf(job.hookup, position)
            return (
              <SortableItem key={position} id={item.id} name={nameAt(item)}>
                {(grip, bind) => (
                  <li data-leg={leg} {...bind}>
                    <span>
                      <b>
                        {position} <small>{leg}</small>
                      </b>
                      {here && !here.lower && grip}
                    </span>
                    {here?.lower ? (
                      <Quiet component="span">with {position - 1}</Quiet>
                    ) : (
                      <Choice
                        label={`Circuit on ${position}${limit === null ? '' : `, up to ${limit} A`}`}
                        value={here?.circuitId ?? ''}
                        options={[
                          { value: '', label: 'free' },
                          ...needs.map(n => ({
                            value: n.circuit.id,
                            label: `${named(n)}, ${n.circuit.breakerA} A`,
                          })),
                        ]}
                        onChange={id => place(position, id)}
                      />
                    )}
                    {here && !here.lower && (
                      <Check
                        label={
                          price && here.pinned
                            ? `pinned: costs ${quantity(price.balanceFraction, 'fraction')} balance${price.unplaced > 0 ? ` and ${plural(price.unplaced, 'circuit')}` : ''}`
                            : 'pinned'
                        }
                        checked={here.pinned}
                        onChange={checked =>
                          put(set.map(p => (p.position === position ? { ...p, pinned: checked } : p)))
                        }
                      />
                    )}
                    {here && !here.lower && built?.protects && (
                      <div className={styles.exchange}>
                        <EditFigure
                          label={`Breaker at ${position}`}
                          unit="A"
                          value={here.breakerA}
                          schema={breakerA}
                          help={`${built.fittedA ?? 0} A fitted${Number.isFinite(built.mostA) ? `, at most ${built.mostA}` : ''}${built.bridge === 'no' ? '' : `, bridged by ${built.bridge === 'handle' ? 'its handle' : 'a common trip'}`}; empty: it stays`}
                          onCommit={breakerA => exchange(position, { breakerA })}
                          onEmpty={() => exchange(position, {})}
                        />
                      </div>
                    )}
                  </li>
                )}
              </SortableItem>
            )
          }}
        </Sortable>
      </ol>
      {unplaced.length > 0 && <p role="note">On no position: {together(unplaced.map(named))}.</p>}
    </Card>
  )
}
