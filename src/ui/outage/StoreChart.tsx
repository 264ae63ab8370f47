'use client'
import { figure, quantity } from '@/core/units/format'
import { roundTicks } from '@/core/units/ticks'
import { useWorkspace } from '../workspace/store'
import styles from './OutageView.module.css'

const width = 760
const height = 280
const left = 92
const bottom = 44
const top = 14
const right = 16

/** The store as water behind the crest of the reserve, falling over the outage. The table behind it holds the same figures. */
export function StoreChart() {
  const store = useWorkspace(s => s.evaluation.store)
  const hoursAsked = useWorkspace(s => s.job.outage.hours)
  if (!store)
    return <p className={styles.empty}>Choose a source, and the store is drawn here over the outage.</p>
  const end = store.points.at(-1)?.hour ?? 0
  const x = (hour: number) => left + ((width - left - right) * hour) / end
  const y = (Wh: number) => top + (height - top - bottom) * (1 - Wh / store.capacityWh)
  const floor = y(0)
  const surface = store.points.map(p => `${x(p.hour)},${y(p.levelWh)}`).join(' ')
  const short = store.points.length > 2
  return (
    <figure className={styles.chart}>
      <svg
        viewBox={`0 0 ${width} ${height}`}
        role="img"
        aria-label={`Store over ${quantity(end, 'h')}; table below`}
      >
        <polygon points={`${x(0)},${floor} ${surface} ${x(end)},${floor}`} className={styles.water} />
        <rect
          x={left}
          y={y(store.reserveWh)}
          width={width - left - right}
          height={floor - y(store.reserveWh)}
          className={styles.reserve}
        />
        {store.reserveWh > 0 && (
          <text x={width - right - 6} y={y(store.reserveWh) - 5} textAnchor="end">
            reserve {quantity(store.reserveWh, 'Wh')}
          </text>
        )}
        <line x1={x(hoursAsked)} x2={x(hoursAsked)} y1={top} y2={floor} className={styles.asked} />
        <text x={x(hoursAsked) - 6} y={top + 12} textAnchor="end" className={styles.strong}>
          asked {quantity(hoursAsked, 'h')}
        </text>
        {short && (
          <>
            <circle cx={x(store.points[1]?.hour ?? 0)} cy={y(store.reserveWh)} r={5} className={styles.dry} />
            <text x={x(store.points[1]?.hour ?? 0) + 9} y={y(store.reserveWh) - 22} className={styles.strong}>
              runs out at {quantity(store.points[1]?.hour ?? 0, 'h')}
            </text>
          </>
        )}
        {roundTicks(store.capacityWh, 5).map(Wh => (
          <text key={Wh} x={left - 8} y={y(Wh) + 4} textAnchor="end">
            {figure(Wh)}
          </text>
        ))}
        {roundTicks(end, 8).map(hour => (
          <text key={hour} x={x(hour)} y={floor + 18} textAnchor="middle">
            {figure(hour)}
          </text>
        ))}
        <text x={left + (width - left - right) / 2} y={height - 6} textAnchor="middle">
          hours of outage
        </text>
        <text
          transform={`translate(18 ${top + (height - top - bottom) / 2}) rotate(-90)`}
          textAnchor="middle"
        >
          store, Wh
        </text>
        <line x1={left} x2={width - right} y1={floor} y2={floor} className={styles.axis} />
        <line x1={left} x2={left} y1={top} y2={floor} className={styles.axis} />
      </svg>
      <figcaption>At the average draw; weather, sun and starts are not in it.</figcaption>
      <details>
        <summary>As a table</summary>
        <table>
          <thead>
            <tr>
              <th scope="col">Hour</th>
              <th scope="col">Store</th>
            </tr>
          </thead>
          <tbody>
            {store.points.map(p => (
              <tr key={p.hour}>
                <td>{quantity(p.hour, 'h')}</td>
                <td>{quantity(p.levelWh, 'Wh')}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </figure>
  )
}
