'use client'
import { carriedBy } from '@/core/job/eligibility'
import { circuitNeeds } from '@/core/job/needs'
import { panelTakes } from '@/core/job/panel-takes'
import type { Job } from '@/core/job/schema'
import type { Panel } from '@/core/panel/schema'
import { plural, quantity, together } from '@/core/units/format'
import { useWorkspace } from '../workspace/store'
import styles from './CircuitInspector.module.css'

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
      <dl className={styles.verdicts}>
        <div>
          <dt>Spaces</dt>
          <dd>
            <b>{free} free</b>
            {unusable > 0 && `, ${unusable} not usable`}
          </dd>
        </div>
        {pair.map(p => (
          <div key={p.where}>
            <dt>Two-pole {p.where === 'anywhere' ? '' : p.where}</dt>
            <dd>
              <b>{moves(p.moves)}</b>
            </dd>
          </div>
        ))}
        <div>
          <dt>Load</dt>
          <dd>
            {demand ? (
              <button
                type="button"
                className={styles.inline}
                aria-haspopup="dialog"
                onClick={() => showWorking(demand.working)}
              >
                <b>
                  {demand.spareA < 0
                    ? `${quantity(-demand.spareA, 'A')} too much`
                    : `${quantity(demand.spareA, 'A')} to spare`}
                </b>
              </button>
            ) : (
              'not known: the highest demand of a year is missing'
            )}
          </dd>
        </div>
        <div>
          <dt>Feed-in</dt>
          <dd>{feedInA === null ? 'not known: bus or main is missing' : <b>{quantity(feedInA, 'A')}</b>}</dd>
        </div>
      </dl>
    </section>
  )
}

/** The picked circuits against every arrangement of voltage, side by side. */
function CarriedBy({ job }: { job: Job }) {
  return (
    <section aria-label="Carried by each arrangement">
      <h3>Carried by</h3>
      <dl className={styles.verdicts}>
        {carriedBy(circuitNeeds(job)).map(a => (
          <div key={a.key}>
            <dt>{a.label}</dt>
            <dd>
              <b>
                {a.carried} of {a.of}
              </b>
              {a.not.length > 0 && `, not ${together(a.not)}`}
            </dd>
          </div>
        ))}
      </dl>
    </section>
  )
}
