'use client'
import { panelTakes } from '@/core/job/panel-takes'
import type { Job } from '@/core/job/schema'
import type { Panel } from '@/core/panel/schema'
import { plural, quantity } from '@/core/units/format'
import { useWorkspace } from '../workspace/store'
import styles from './CircuitInspector.module.css'

/** What the panel on the screen can still take. */
export function PanelTakesView({ job, panel }: { job: Job; panel: Panel }) {
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
