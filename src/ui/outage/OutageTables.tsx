'use client'
import Button from '@mui/material/Button'
import { memo, type ReactNode, useState } from 'react'
import { traceCsv } from '@/core/formats/outage-csv'
import type { Chance } from '@/core/outage/chance'
import type { Plan } from '@/core/outage/plan'
import type { Trace } from '@/core/outage/trace'
import { accountRows, outOf100 } from '@/core/outage/words'
import { duration, figure, plural, quantity } from '@/core/units/format'
import styles from './Outage.module.css'
import { markGlyphs } from './OutageChart'

interface Props {
  plan: Plan
  trace: Trace
  chance: Chance | null
  name: string
}

const sides = { in: 'In', out: 'To', lost: 'Lost', left: 'Left' } as const

/** A table that is made only while it is open: what nobody looks at does not slow a slider. */
function Fold({ summary, children }: { summary: string; children: () => ReactNode }) {
  const [open, setOpen] = useState(false)
  return (
    <details onToggle={e => setOpen(e.currentTarget.open)}>
      <summary>{summary}</summary>
      {open && children()}
    </details>
  )
}

/** The tables behind the drawing: the account, dark hours, what happens when, overloads; and the CSV. */
export const OutageTables = memo(function OutageTables({ plan, trace, chance, name }: Props) {
  const download = () => {
    const url = URL.createObjectURL(new Blob([traceCsv(plan, trace, chance)], { type: 'text/csv' }))
    const link = document.createElement('a')
    link.href = url
    link.download = `${name.toLowerCase().replace(/[^a-z0-9]+/g, '-')}-outage.csv`
    link.click()
    URL.revokeObjectURL(url)
  }
  const about = (mark: Trace['marks'][number]): string => {
    if (mark.kind === 'trip') return plan.loads[mark.about]?.name ?? 'more than the source gives'
    if (mark.kind === 'let go' || mark.kind === 'back on')
      return mark.about === 2 ? 'should run' : mark.about === 3 ? 'may go' : ''
    if (mark.kind.startsWith('store') || mark.kind === 'full')
      return plan.stores.length > 1 ? (plan.stores[mark.about]?.name ?? '') : ''
    return ''
  }
  return (
    <div className={styles.tables}>
      <Fold summary="Every watt-hour">
        {() => (
          <table>
            <thead>
              <tr>
                <th scope="col">Account</th>
                <th scope="col">What</th>
                <th scope="col">Energy</th>
              </tr>
            </thead>
            <tbody>
              {accountRows(plan, trace).map(r => (
                <tr key={`${r.side}${r.name}`}>
                  <td>{sides[r.side]}</td>
                  <td>{r.name}</td>
                  <td className={styles.number}>{quantity(r.Wh, 'Wh')}</td>
                </tr>
              ))}
              <tr>
                <td>Not accounted for</td>
                <td>{trace.account.residualFraction.toExponential(1)} of all that went through</td>
                <td className={styles.number}>{trace.account.residualWh.toExponential(1)} Wh</td>
              </tr>
            </tbody>
          </table>
        )}
      </Fold>
      {chance && (
        <Fold summary="Dark hours by circuit">
          {() => (
            <table>
              <thead>
                <tr>
                  <th scope="col">Circuit</th>
                  <th scope="col">Tier</th>
                  <th scope="col">On average</th>
                  <th scope="col">In one of twenty, at least</th>
                </tr>
              </thead>
              <tbody>
                {plan.unserved.map(u => (
                  <tr key={u.name}>
                    <td>{u.name}, not fed</td>
                    <td>{u.tier}</td>
                    <td className={styles.number}>{quantity(plan.hours, 'h')}</td>
                    <td className={styles.number}>{quantity(plan.hours, 'h')}</td>
                  </tr>
                ))}
                {plan.circuits.map((c, n) => (
                  <tr key={c.id}>
                    <td>{c.name}</td>
                    <td>{c.tier}</td>
                    <td className={styles.number}>{duration(chance.darkH[n]?.mean ?? 0)}</td>
                    <td className={styles.number}>{duration(chance.darkH[n]?.high ?? 0)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
        </Fold>
      )}
      <Fold summary="What happens when">
        {() =>
          trace.marks.length ? (
            <table>
              <thead>
                <tr>
                  <th scope="col">Hour</th>
                  <th scope="col">Mark</th>
                  <th scope="col">What</th>
                </tr>
              </thead>
              <tbody>
                {trace.marks.map(m => (
                  <tr key={`${m.kind}${m.hour}${m.about}`}>
                    <td className={styles.number}>{quantity(m.hour, 'h')}</td>
                    <td>{markGlyphs[m.kind]}</td>
                    <td>
                      {m.kind}
                      {about(m) && `: ${about(m)}`}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          ) : (
            <p>Nothing: the store falls, and that is all.</p>
          )
        }
      </Fold>
      {chance && chance.tripKinds.length > 0 && (
        <Fold summary={`Overloads, ${plural(chance.tripKinds.length, 'combination')}`}>
          {() => (
            <table>
              <thead>
                <tr>
                  <th scope="col">Came on</th>
                  <th scope="col">While this ran</th>
                  <th scope="col">Of 100 outages</th>
                </tr>
              </thead>
              <tbody>
                {chance.tripKinds.slice(0, 12).map(k => (
                  <tr key={`${k.trigger}-${k.beside}`}>
                    <td>{plan.loads[k.trigger]?.name ?? 'several at once'}</td>
                    <td>{plan.loads[k.beside]?.name ?? 'nothing large'}</td>
                    <td className={styles.number}>{outOf100(k.draws / chance.draws)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
        </Fold>
      )}
      <Fold summary="The store by the hour">
        {() => (
          <table>
            <thead>
              <tr>
                <th scope="col">Hour</th>
                <th scope="col">Store</th>
                <th scope="col">Sun</th>
                <th scope="col">Generator</th>
                <th scope="col">To loads</th>
                <th scope="col">Lost</th>
              </tr>
            </thead>
            <tbody>
              {Array.from(trace.points.hour, (h, p) => ({ h, p }))
                .filter(({ p }) => p % Math.max(1, Math.ceil(trace.points.hour.length / 49)) === 0)
                .map(({ h, p }) => (
                  <tr key={h}>
                    <td className={styles.number}>{figure(h)} h</td>
                    <td className={styles.number}>{quantity(trace.points.levelWh[p] ?? 0, 'Wh')}</td>
                    <td className={styles.number}>{quantity(trace.points.sunW[p] ?? 0, 'W')}</td>
                    <td className={styles.number}>{quantity(trace.points.generatorW[p] ?? 0, 'W')}</td>
                    <td className={styles.number}>
                      {quantity(
                        trace.points.tierW.reduce((all, t) => all + (t[p] ?? 0), 0),
                        'W',
                      )}
                    </td>
                    <td className={styles.number}>{quantity(trace.points.lostW[p] ?? 0, 'W')}</td>
                  </tr>
                ))}
            </tbody>
          </table>
        )}
      </Fold>
      <Button variant="outlined" onClick={download}>
        Download as CSV
      </Button>
    </div>
  )
})
