import * as z from 'zod'
import { landingProblem, landingsFrom } from '@/core/assess/landing'
import { circuitNeeds } from '@/core/assess/needs'
import { newPanelId } from '@/core/job/new-panel'
import { movesCircuits } from '@/core/job/panels'
import { feedOf, positionText } from '@/core/panel/positions'
import { breakerRatings, panelSchema } from '@/core/panel/schema'
import { plural, quantity } from '@/core/units/format'
import { DataTable } from '../common/DataTable'
import { Card, Columns, Quiet } from '../common/pieces'
import { Choice } from '../form/Choice'
import { EditField, EditFigure, readText } from '../form/EditField'
import { useWorkspace } from '../workspace/store'
import { SolveTools } from './SolveTools'
import { usePositions } from './usePositions'

const sizes = [8, 12, 16, 20, 24, 30, 40, 42]
const space = z.int('must be a whole number').min(1, 'must be 1 or more').max(84, 'must be at most 84')

/** The new panel that circuits move to: its size and feeder, and where each lands, solved at a press or pinned by hand. */
export function LandingDesk() {
  const job = useWorkspace(s => s.job)
  const panel = useWorkspace(s => s.evaluation.house?.panels.find(p => p.id === newPanelId))
  const feeder = useWorkspace(s =>
    s.evaluation.house?.panels.flatMap(p => p.circuits).find(c => c.id === panel?.feederId),
  )
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const { busy, plan, ms, trouble, solve, stop } = usePositions()
  if (!movesCircuits(job)) return null
  if (!panel || !feeder)
    return (
      <Card title="The new panel" id="new-panel">
        <p>
          Pick the circuits that move, and see that the panel they come from has two spaces, one above the
          other, for its feeder: then it stands here with a place for each.
        </p>
      </Card>
    )
  const landings = job.hookup.landings ?? []
  const pinned = (id: string) => landings.some(l => l.circuitId === id && l.pinned)
  const set = (facts: NonNullable<typeof job.hookup.newPanel>) =>
    act({ op: 'setHookup', facts: { newPanel: { ...job.hookup.newPanel, ...facts } } })
  const run = (kept = landings) => {
    const asked = { ...job, hookup: { ...job.hookup, landings: kept } }
    const problem = landingProblem({ job: asked }, circuitNeeds(asked))
    if (!problem) return say('Choose a source first: its arrangement says how the legs are to be balanced.')
    solve(problem, found => {
      const [fault] = act({ op: 'setHookup', facts: { landings: landingsFrom(problem, found) } })
      if (fault) say(fault.message)
    })
  }
  const costOf = (id: string) => plan?.pinCosts.find(p => p.circuitId === id)
  return (
    <Card
      title={`The new panel: ${panel.name}`}
      id="new-panel"
      tools={
        <SolveTools
          label="Solve the landing"
          busy={busy}
          onSolve={() => run()}
          onStop={stop}
          onLoosen={
            landings.some(l => l.pinned) ? () => run(landings.map(l => ({ ...l, pinned: false }))) : undefined
          }
        />
      }
    >
      <Quiet role="status">
        {busy
          ? 'Solving…'
          : plan
            ? `${plan.balanced ? `${quantity(plan.imbalanceFraction, 'fraction')} out of balance over the day: ` : ''}${quantity(plan.legVA.L1, 'VA')} on L1 and ${quantity(plan.legVA.L2, 'VA')} on L2 on average; solved exactly in ${Math.round(ms)} ms.`
            : `${plural(panel.circuits.length, 'circuit')} in ${panel.spaces} spaces. Solved, the legs are balanced by what runs together; the two hots of a neutral stand one above the other under a tie.`}
      </Quiet>
      {trouble && <p role="alert">{trouble}</p>}
      <Columns least={150}>
        <EditField
          label="Name"
          value={panel.name}
          read={readText(panelSchema.shape.name)}
          onCommit={name => set({ name })}
        />
        <Choice
          label="Spaces"
          value={panel.spaces}
          options={[...new Set([...sizes, panel.spaces])]
            .sort((a, b) => a - b)
            .map(value => ({ value, label: `${value}` }))}
          onChange={spaces => set({ spaces })}
        />
        <Choice
          label="Its feeder"
          value={feeder.breakerA}
          options={breakerRatings
            .filter(a => a >= 30 && a <= 125)
            .map(value => ({ value, label: `${value} A` }))}
          onChange={feederA => set({ feederA })}
        />
      </Columns>
      <DataTable
        label="Where circuits land"
        sx={{ '& td': { pt: 1.5 } }}
        rows={panel.circuits}
        idOf={c => c.id}
        columns={[
          { head: 'At', names: true, cell: c => `${positionText(panel, c)} ${c.label || 'unlabelled'}` },
          { head: 'Leg', cell: c => (c.poles === 2 ? 'both' : feedOf(panel, c)) },
          {
            head: 'Place',
            cell: c => (
              <EditFigure
                key={`${c.id} ${c.position}`}
                label={`Place of ${c.label || 'unlabelled'}`}
                value={c.position}
                schema={space}
                onCommit={toPosition => act({ op: 'planMove', circuitId: c.id, toPosition })}
              />
            ),
          },
          {
            head: 'Pin',
            cell: c => {
              const cost = costOf(c.id)
              if (!pinned(c.id)) return '–'
              return cost
                ? `costs ${quantity(cost.balanceFraction, 'fraction')} of balance${cost.unplaced ? `, ${plural(cost.unplaced, 'circuit')} without a place` : ''}`
                : 'by hand'
            },
          },
        ]}
      />
    </Card>
  )
}
