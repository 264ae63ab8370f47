'use client'
import { Bar, BarChart, CartesianGrid, ResponsiveContainer, XAxis, YAxis } from 'recharts'
import styles from './Loads.module.css'

const tick = { fill: 'var(--mui-palette-text-secondary)', fontSize: 12 }

/** The share of the time that it runs, by hour of the day. */
export function HoursChart({ duty }: { duty: readonly (number | null)[] }) {
  const data = duty.map((d, hour) => ({ hour, percent: d === null ? 0 : 100 * d }))
  return (
    <figure style={{ margin: 0 }} aria-label="Share of the time it runs, by hour of the day">
      <div className={`${styles.chart} ${styles.small}`}>
        <ResponsiveContainer>
          <BarChart data={data} margin={{ top: 8, right: 8, bottom: 18, left: 4 }}>
            <CartesianGrid vertical={false} stroke="var(--mui-palette-divider)" />
            <XAxis
              dataKey="hour"
              tick={tick}
              interval={2}
              label={{ value: 'hour of the day', position: 'bottom', offset: 2, ...tick }}
            />
            <YAxis
              tick={tick}
              width={44}
              label={{ value: 'runs, %', angle: -90, position: 'insideLeft', ...tick }}
            />
            <Bar dataKey="percent" fill="var(--mui-palette-water-deep)" isAnimationActive={false} />
          </BarChart>
        </ResponsiveContainer>
      </div>
    </figure>
  )
}
