'use client'
import type { ReactNode } from 'react'
import {
  Area,
  AreaChart,
  Bar,
  BarChart,
  CartesianGrid,
  ReferenceLine,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts'
import type { UtilityViews } from '@/core/loads/utility-year'
import { figure, quantity } from '@/core/units/format'
import styles from './Loads.module.css'

const tick = { fill: 'var(--mui-palette-text-secondary)', fontSize: 12 }
const margin = { top: 10, right: 12, bottom: 20, left: 8 }
const grid = <CartesianGrid stroke="var(--mui-palette-divider)" vertical={false} />
const watts = (v: unknown) => quantity(Number(v), 'W')
const box = {
  background: 'var(--mui-palette-background-paper)',
  border: '1px solid var(--mui-palette-divider)',
}

function Figure({
  title,
  note,
  children,
  table,
}: {
  title: string
  note: string
  children: ReactNode
  table: { head: [string, string]; rows: [string, string][] }
}) {
  return (
    <figure className={styles.card} style={{ margin: 0 }} aria-label={title}>
      <h2>{title}</h2>
      <div className={styles.chart}>{children}</div>
      <figcaption className={styles.quiet}>{note}</figcaption>
      <details>
        <summary>As a table</summary>
        <div style={{ maxHeight: 260, overflow: 'auto' }}>
          <table className={styles.table}>
            <thead>
              <tr>
                <th scope="col">{table.head[0]}</th>
                <th scope="col">{table.head[1]}</th>
              </tr>
            </thead>
            <tbody>
              {table.rows.map(([a, b]) => (
                <tr key={a}>
                  <td>{a}</td>
                  <td>{b}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </details>
    </figure>
  )
}

/** How much of the time the house draws at least so much. */
export function DurationChart({ duration, baseW }: { duration: UtilityViews['duration']; baseW: number }) {
  const data = duration.map(d => ({ percent: 100 * d.share, W: d.W }))
  return (
    <Figure
      title="Load duration"
      note="The house draws at least so much for that share of the time; the line is what is always on."
      table={{
        head: ['Share of the time', 'At least'],
        rows: data.filter((_, i) => i % 5 === 0).map(d => [`${figure(d.percent)} %`, quantity(d.W, 'W')]),
      }}
    >
      <ResponsiveContainer>
        <AreaChart data={data} margin={margin}>
          {grid}
          <XAxis
            dataKey="percent"
            type="number"
            domain={[0, 100]}
            tick={tick}
            label={{ value: 'share of the time, %', position: 'bottom', offset: 2, ...tick }}
          />
          <YAxis
            tick={tick}
            width={58}
            tickFormatter={(v: number) => figure(v)}
            label={{ value: 'demand, W', angle: -90, position: 'insideLeft', ...tick }}
          />
          <Tooltip
            contentStyle={box}
            formatter={watts}
            labelFormatter={l => `${figure(Number(l))} % of the time`}
          />
          <Area
            dataKey="W"
            name="at least"
            stroke="var(--mui-palette-water-deep)"
            fill="var(--mui-palette-water-live)"
            fillOpacity={0.6}
            isAnimationActive={false}
          />
          <ReferenceLine y={baseW} stroke="var(--mui-palette-severity-stop)" strokeDasharray="6 4" />
        </AreaChart>
      </ResponsiveContainer>
    </Figure>
  )
}

/** The week around the highest demand. */
export function WeekChart({ week }: { week: UtilityViews['peakWeek'] }) {
  return (
    <Figure
      title="The week around the peak"
      note="Each step is the mean of an interval."
      table={{ head: ['From', 'Demand'], rows: week.map(w => [w.at.replace('T', ' '), quantity(w.W, 'W')]) }}
    >
      <ResponsiveContainer>
        <AreaChart data={week} margin={margin}>
          {grid}
          <XAxis
            dataKey="at"
            tick={tick}
            tickFormatter={(at: string) => at.slice(5, 10)}
            minTickGap={40}
            label={{ value: 'day', position: 'bottom', offset: 2, ...tick }}
          />
          <YAxis
            tick={tick}
            width={58}
            tickFormatter={(v: number) => figure(v)}
            label={{ value: 'demand, W', angle: -90, position: 'insideLeft', ...tick }}
          />
          <Tooltip contentStyle={box} formatter={watts} labelFormatter={l => String(l).replace('T', ' ')} />
          <Area
            type="stepAfter"
            dataKey="W"
            name="demand"
            stroke="var(--mui-palette-water-deep)"
            fill="var(--mui-palette-water-live)"
            fillOpacity={0.6}
            isAnimationActive={false}
          />
        </AreaChart>
      </ResponsiveContainer>
    </Figure>
  )
}

/** The mean day of each month. */
export function MonthsChart({ months }: { months: UtilityViews['months'] }) {
  const data = months.map(m => ({ month: m.month, kWh: m.dailyWh / 1000 }))
  return (
    <Figure
      title="A mean day, month by month"
      note="All energy of the month over its hours that were read."
      table={{ head: ['Month', 'A mean day'], rows: months.map(m => [m.month, quantity(m.dailyWh, 'Wh')]) }}
    >
      <ResponsiveContainer>
        <BarChart data={data} margin={margin}>
          {grid}
          <XAxis
            dataKey="month"
            tick={tick}
            label={{ value: 'month', position: 'bottom', offset: 2, ...tick }}
          />
          <YAxis
            tick={tick}
            width={58}
            label={{ value: 'a day, kWh', angle: -90, position: 'insideLeft', ...tick }}
          />
          <Tooltip contentStyle={box} formatter={v => `${figure(Number(v))} kWh`} />
          <Bar dataKey="kWh" name="a day" fill="var(--mui-palette-water-deep)" isAnimationActive={false} />
        </BarChart>
      </ResponsiveContainer>
    </Figure>
  )
}
