import { Area, ComposedChart, Line, Scatter, Tooltip, XAxis, YAxis } from 'recharts'
import { ageingOf, capacityPoints } from '@/core/commission/ageing'
import type { Test } from '@/core/commission/tests'
import { figure, quantity } from '@/core/units/format'
import { ChartFigure, grid, margin, tip, water, xAxis, yAxis } from '../common/chart'
import { useWorkspace } from '../workspace/store'

const percent = (fraction: number) => Math.round(1000 * fraction) / 10

/** The capacity tests of a unit over the years, and what they make one expect, with the band that four in five fall into. */
export function AgeingCard({ test }: { test: Test }) {
  const log = useWorkspace(s => s.job.tests?.log)
  const { points, lostPerYear, forecast } = ageingOf(capacityPoints(test, log ?? []))
  if (!points.length) return null
  const drawn = [
    ...points.map(p => ({ years: p.years, tested: percent(p.fraction) })),
    ...forecast.map(f => ({
      years: f.years,
      likely: percent(f.likely),
      band: [percent(f.low), percent(f.high)],
    })),
  ].sort((a, b) => a.years - b.years)
  const last = forecast.at(-1)
  return (
    <ChartFigure
      title={test.text.replace(/^Capacity and round trip of/, 'Capacity over the years:')}
      note={`${
        lostPerYear === null
          ? 'One test alone: two hundredths a year are taken as usual, between one and four; the next test tells its own.'
          : `It loses about ${quantity(lostPerYear, 'fraction')} a year, by its tests and what is usual.`
      } ${last ? `In ${figure(last.years)} years ${quantity(last.low, 'fraction')} to ${quantity(last.high, 'fraction')} of the label, four in five.` : ''}`}
      heads={['Day', 'Of the label, %', 'Delivered, Wh', 'Round trip, %']}
      rows={points.map(p => [
        `${p.on}${p.simulated ? ' (simulated)' : ''}`,
        figure(100 * p.fraction),
        figure(p.deliveredWh),
        p.roundTripFraction === null ? '–' : figure(100 * p.roundTripFraction),
      ])}
    >
      <ComposedChart data={drawn} margin={margin}>
        {grid}
        <XAxis
          dataKey="years"
          type="number"
          domain={[0, 'dataMax']}
          {...xAxis('years since the first test')}
          tickFormatter={(v: number) => figure(v)}
        />
        <YAxis domain={[40, 110]} {...yAxis('of the label, %')} />
        <Tooltip
          {...tip}
          formatter={value => (Array.isArray(value) ? `${value.join(' to ')} %` : `${value} %`)}
          labelFormatter={label => `${figure(Number(label))} years`}
        />
        <Area
          dataKey="band"
          name="four in five"
          stroke="none"
          fill={water.live}
          fillOpacity={0.25}
          isAnimationActive={false}
          connectNulls
        />
        <Line
          dataKey="likely"
          name="likely"
          stroke={water.deep}
          strokeDasharray="6 4"
          dot={false}
          isAnimationActive={false}
          connectNulls
        />
        <Scatter dataKey="tested" name="tested" fill={water.deep} isAnimationActive={false} />
      </ComposedChart>
    </ChartFigure>
  )
}
