import { Box } from '@mui/material'
import { scaleLinear } from 'd3-scale'
import { memo } from 'react'
import {
  Bar,
  BarChart,
  Legend,
  Line,
  LineChart,
  ReferenceDot,
  ReferenceLine,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts'
import type { Curve } from '@/core/curve'
import { figure } from '@/core/units/format'
import { ChartFigure, grid, margin, tip, xAxis, yAxis } from '../common/chart'
import { type Scale, useScale } from '../form/units'
import { chartText } from '../theme/tokens'

const colours = [
  'var(--mui-palette-water-deep)',
  'var(--mui-palette-secondary-main)',
  'var(--mui-palette-severity-mind)',
  'var(--mui-palette-text-secondary)',
]
const dashes = ['', '7 4', '2 4', '9 3 2 3']

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
  const x = useScale(curve.x.unit)
  const y = useScale(curve.y.unit)
  const rows = rowsOf(curve, x, y)
  const names = curve.series.map(s => s.name)
  const told = (value: number | string | undefined) =>
    typeof value === 'number' ? figure(value) : (value ?? '')
  return (
    <ChartFigure
      title={curve.title}
      heads={[
        withSymbol(curve.x.label, x),
        ...names.map(name => withSymbol(names.length > 1 ? name : curve.y.label, y)),
      ]}
      rows={rows.map(row => [told(row.x), ...names.map(name => told(row[name]))])}
      note={curve.limits?.map(l => (
        <Box key={l.label} component="span" sx={{ mr: 2, color: 'severity.stop' }}>
          <span aria-hidden>╌ </span>
          {l.label.includes('%') ? l.label : `${l.label}, ${figure(y.shown(l.y))} ${y.symbol}`}
        </Box>
      ))}
    >
      <Drawn curve={curve} rows={rows} names={names} x={x} y={y} />
    </ChartFigure>
  )
}

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
    grid,
    <YAxis
      key="y"
      {...yAxis(withSymbol(curve.y.label, y))}
      domain={[0, ceiling]}
      ticks={scaleLinear([0, ceiling], []).ticks(5)}
    />,
    <Tooltip
      key="tip"
      {...tip}
      formatter={v => `${figure(Number(v))} ${y.symbol}`}
      labelFormatter={v => (typeof v === 'number' ? `${curve.x.label} ${figure(v)} ${x.symbol}` : String(v))}
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
            wrapperStyle={{ fontSize: chartText }}
          />,
        ]
      : []),
  ]
  const below = xAxis(withSymbol(curve.x.label, x))
  return curve.kind === 'line' ? (
    <LineChart data={rows} margin={margin} accessibilityLayer>
      {common}
      <XAxis
        dataKey="x"
        type="number"
        domain={['dataMin', 'dataMax']}
        ticks={xs.length ? scaleLinear([Math.min(...xs), Math.max(...xs)], []).ticks(6) : undefined}
        {...below}
        tickFormatter={(v: number) => figure(v)}
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
      <XAxis dataKey="x" {...below} interval={rows.length > 12 ? 'equidistantPreserveStart' : 0} />
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
  )
}

function heightOf(row: Row, names: string[], stacked: boolean): number {
  const values = names.map(n => row[n]).filter(v => typeof v === 'number')
  return stacked ? values.reduce((a, b) => a + b, 0) : Math.max(0, ...values)
}
