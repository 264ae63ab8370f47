import { carriedBy } from '@/core/assess/eligibility'
import { circuitNeeds } from '@/core/assess/needs'
import { panelTakes } from '@/core/assess/panel-takes'
import type { Job } from '@/core/job/schema'
import type { Panel } from '@/core/panel/schema'
import { plural, quantity, together } from '@/core/units/format'
import { FigureLink, Terms } from '../common/pieces'
import { useWorkspace } from '../workspace/store'

/** The picked circuits against every arrangement, and what the panel on the screen can still take. */
export function JudgePanel({ job, panel }: { job: Job; panel: Panel }) {
  return (
    <>
      <CarriedBy job={job} />
      <PanelTakesView job={job} panel={panel} />
    </>
  )
}

/** What the panel on the screen can still take. */
function PanelTakesView({ job, panel }: { job: Job; panel: Panel }) {
  const showWorking = useWorkspace(s => s.showWorking)
  const { free, unusable, pair, demand, feedInA } = panelTakes(job, panel)
  const moves = (n: number | null) =>
    n === null ? 'no room' : n === 0 ? 'there' : `after moving ${plural(n, 'breaker')}`
  return (
    <section aria-label="What this panel can take">
      <h3>What {panel.name} can take</h3>
      <Terms
        rows={[
          [
            'Spaces',
            <>
              <b>{free} free</b>
              {unusable > 0 && `, ${unusable} not usable`}
            </>,
          ],
          ...pair.map(
            p =>
              [
                `Two-pole ${p.where === 'anywhere' ? '' : p.where}`,
                <b key="moves">{moves(p.moves)}</b>,
              ] as const,
          ),
          [
            'Load',
            demand ? (
              <FigureLink key="spare" onClick={() => showWorking(demand.working)}>
                {demand.spareA < 0
                  ? `${quantity(-demand.spareA, 'A')} too much`
                  : `${quantity(demand.spareA, 'A')} to spare`}
              </FigureLink>
            ) : (
              'not known: the highest demand of a year is missing'
            ),
          ],
          ['Feed-in', feedInA === null ? 'not known: bus or main is missing' : quantity(feedInA, 'A')],
        ]}
      />
    </section>
  )
}

/** The picked circuits against every arrangement of voltage, side by side. */
function CarriedBy({ job }: { job: Job }) {
  return (
    <section aria-label="Carried by each arrangement">
      <h3>Carried by</h3>
      <Terms
        rows={carriedBy(circuitNeeds(job)).map(a => [
          a.label,
          <>
            <b>
              {a.carried} of {a.of}
            </b>
            {a.not.length > 0 && `, not ${together(a.not)}`}
          </>,
        ])}
      />
    </section>
  )
}
