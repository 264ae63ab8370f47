'use client'
import Button from '@mui/material/Button'
import { memo, useState } from 'react'
import {
  Bar,
  BarChart,
  CartesianGrid,
  Legend,
  Line,
  LineChart,
  ReferenceDot,
  ReferenceLine,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts'
import type { Curve } from '@/core/curve'
import { figure } from '@/core/units/format'
import { roundTicks, ticksBetween } from '@/core/units/ticks'
import styles from './CurveChart.module.css'
import { type Scale, useScale } from './units'

const colours = [
  'var(--mui-palette-water-deep)',
  'var(--mui-palette-secondary-main)',
  'var(--mui-palette-severity-mind)',
  'var(--mui-palette-text-secondary)',
]
const dashes = ['', '7 4', '2 4', '9 3 2 3']
const tick = { fill: 'var(--mui-palette-text-secondary)', fontSize: 12 }
const ink = 'var(--mui-palette-text-secondary)'

type Row = Record<string, number | string>

/** One row for each x, a key for each series: what the chart draws and the table lists. */
function rowsOf(curve: Curve, x: Scale, y: Scale): Row[] {
  const rows = new Map<number | string, Row>()
  for (const { name, points } of curve.series)
    for (const p of points) {
      const at = typeof p.x === 'number' ? x.shown(p.x) : p.x
      rows.set(at, { ...(rows.get(at) ?? { x: at }), [name]: y.shown(p.y) })
    }
  return [...rows.values()]
}

const withSymbol = (label: string, { symbol }: Scale) => (symbol ? `${label}, ${symbol}` : label)

/** A curve as the core computed it, with axis titles and units, and its table behind it. */
export const CurveChart = memo(Chart)

function Chart({ curve }: { curve: Curve }) {
  const [table, setTable] = useState(false)
  const x = useScale(curve.x.unit)
  const y = useScale(curve.y.unit)
  const rows = rowsOf(curve, x, y)
  const names = curve.series.map(s => s.name)
  return (
    <figure className={styles.chart}>
      <figcaption>
        {curve.title}
        <Button size="small" onClick={() => setTable(!table)} aria-pressed={table}>
          {table ? 'Chart' : 'Table'}
        </Button>
      </figcaption>
      {table ? (
        <div className={styles.scroll}>
          <table>
            <thead>
              <tr>
                <th scope="col">{withSymbol(curve.x.label, x)}</th>
                {names.map(name => (
                  <th scope="col" key={name}>
                    {withSymbol(names.length > 1 ? name : curve.y.label, y)}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.map(row => (
                <tr key={row.x}>
                  <th scope="row">{typeof row.x === 'number' ? figure(row.x) : row.x}</th>
                  {names.map(name => (
                    <td key={name}>{typeof row[name] === 'number' ? figure(row[name]) : ''}</td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      ) : (
        <>
          <Drawn curve={curve} rows={rows} names={names} x={x} y={y} />
          {curve.limits && (
            <ul className={styles.limits}>
              {curve.limits.map(l => (
                <li key={l.label}>
                  {l.label.includes('%') ? l.label : `${l.label}, ${figure(y.shown(l.y))} ${y.symbol}`}
                </li>
              ))}
            </ul>
          )}
        </>
      )}
    </figure>
  )
}

const margin = { top: 18, right: 16, bottom: 22, left: 8 }

function Drawn({
  curve,
  rows,
  names,
  x,
  y,
}: {
  curve: Curve
  rows: Row[]
  names: string[]
  x: Scale
  y: Scale
}) {
  const limits = (curve.limits ?? []).map(l => ({ ...l, y: y.shown(l.y) }))
  const top = Math.max(
    ...limits.map(l => l.y),
    ...rows.map(r => heightOf(r, names, curve.kind === 'stacked')),
  )
  const xs = rows.map(r => r.x).filter(v => typeof v === 'number')
  const ceiling = Number.isFinite(top) && top > 0 ? top * 1.08 : 1
  const common = [
    <CartesianGrid key="grid" vertical={false} stroke="var(--mui-palette-divider)" />,
    <YAxis
      key="y"
      tick={tick}
      stroke={ink}
      width={58}
      domain={[0, ceiling]}
      ticks={roundTicks(ceiling, 5)}
      tickFormatter={(v: number) => figure(v)}
      label={{
        value: withSymbol(curve.y.label, y),
        angle: -90,
        position: 'insideLeft',
        style: { textAnchor: 'middle', fill: ink, fontSize: 12 },
      }}
    />,
    <Tooltip
      key="tip"
      isAnimationActive={false}
      formatter={v => `${figure(Number(v))} ${y.symbol}`}
      labelFormatter={v => (typeof v === 'number' ? `${curve.x.label} ${figure(v)} ${x.symbol}` : String(v))}
      contentStyle={{
        background: 'var(--mui-palette-background-paper)',
        border: '1px solid var(--mui-palette-divider)',
        color: 'inherit',
      }}
    />,
    ...limits.map(l => (
      <ReferenceLine key={l.label} y={l.y} stroke="var(--mui-palette-severity-stop)" strokeDasharray="6 4" />
    )),
    ...(names.length > 1
      ? [
          <Legend
            key="legend"
            itemSorter={null}
            verticalAlign="top"
            height={26}
            wrapperStyle={{ fontSize: 12 }}
          />,
        ]
      : []),
  ]
  const xLabel = {
    value: withSymbol(curve.x.label, x),
    position: 'insideBottom',
    offset: -14,
    fill: ink,
    fontSize: 12,
  } as const
  return (
    <ResponsiveContainer width="100%" height={230}>
      {curve.kind === 'line' ? (
        <LineChart data={rows} margin={margin} accessibilityLayer>
          {common}
          <XAxis
            dataKey="x"
            type="number"
            domain={['dataMin', 'dataMax']}
            ticks={xs.length ? ticksBetween(Math.min(...xs), Math.max(...xs), 6) : undefined}
            tick={tick}
            stroke={ink}
            tickFormatter={(v: number) => figure(v)}
            label={xLabel}
          />
          {names.map((name, n) => (
            <Line
              key={name}
              dataKey={name}
              stroke={colours[n % colours.length]}
              strokeDasharray={dashes[n % dashes.length]}
              strokeWidth={2.5}
              dot={false}
              isAnimationActive={false}
              connectNulls
            />
          ))}
          {curve.here && (
            <ReferenceDot
              x={x.shown(curve.here.x)}
              y={y.shown(curve.here.y)}
              r={6}
              fill="var(--mui-palette-background-paper)"
              stroke="var(--mui-palette-text-primary)"
              strokeWidth={2.5}
              ifOverflow="extendDomain"
            />
          )}
        </LineChart>
      ) : (
        <BarChart data={rows} margin={margin} accessibilityLayer>
          {common}
          <XAxis
            dataKey="x"
            tick={tick}
            stroke={ink}
            interval={rows.length > 12 ? 'equidistantPreserveStart' : 0}
            label={xLabel}
          />
          {names.map((name, n) => (
            <Bar
              key={name}
              dataKey={name}
              fill={colours[n % colours.length]}
              stackId={curve.kind === 'stacked' ? 'all' : undefined}
              maxBarSize={64}
              isAnimationActive={false}
            />
          ))}
        </BarChart>
      )}
    </ResponsiveContainer>
  )
}

function heightOf(row: Row, names: string[], stacked: boolean): number {
  const values = names.map(n => row[n]).filter(v => typeof v === 'number')
  return stacked ? values.reduce((a, b) => a + b, 0) : Math.max(0, ...values)
}
