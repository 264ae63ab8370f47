import { Area, AreaChart, Bar, BarChart, ReferenceLine, Tooltip, XAxis, YAxis } from 'recharts'
import type { UtilityViews } from '@/core/loads/utility-year'
import { figure, quantity } from '@/core/units/format'
import { ChartFigure, grid, margin, tip, water, xAxis, yAxis } from '../common/chart'

const watts = (v: unknown) => quantity(Number(v), 'W')
const waters = { stroke: water.deep, fill: water.live, fillOpacity: 0.6, isAnimationActive: false }

/** How much of the time the house draws at least so much. */
export function DurationChart({ duration, baseW }: { duration: UtilityViews['duration']; baseW: number }) {
  const data = duration.map(d => ({ percent: 100 * d.share, W: d.W }))
  return (
    <ChartFigure
      height={270}
      title="Load duration"
      note="The house draws at least so much for that share of the time; the line is what is always on."
      heads={['Share of the time', 'At least']}
      rows={data.filter((_, i) => i % 5 === 0).map(d => [`${figure(d.percent)} %`, quantity(d.W, 'W')])}
    >
      <AreaChart data={data} margin={margin}>
        {grid}
        <XAxis dataKey="percent" type="number" domain={[0, 100]} {...xAxis('share of the time, %')} />
        <YAxis {...yAxis('demand, W')} />
        <Tooltip {...tip} formatter={watts} labelFormatter={l => `${figure(Number(l))} % of the time`} />
        <Area dataKey="W" name="at least" {...waters} />
        <ReferenceLine y={baseW} stroke="var(--mui-palette-severity-stop)" strokeDasharray="6 4" />
      </AreaChart>
    </ChartFigure>
  )
}

/** The week around the highest demand. */
export function WeekChart({ week }: { week: UtilityViews['peakWeek'] }) {
  return (
    <ChartFigure
      height={270}
      title="The week around the peak"
      note="Each step is the mean of an interval."
      heads={['From', 'Demand']}
      rows={week.map(w => [w.at.replace('T', ' '), quantity(w.W, 'W')])}
    >
      <AreaChart data={week} margin={margin}>
        {grid}
        <XAxis
          dataKey="at"
          {...xAxis('day')}
          tickFormatter={(at: string) => at.slice(5, 10)}
          minTickGap={40}
        />
        <YAxis {...yAxis('demand, W')} />
        <Tooltip {...tip} formatter={watts} labelFormatter={l => String(l).replace('T', ' ')} />
        <Area type="stepAfter" dataKey="W" name="demand" {...waters} />
      </AreaChart>
    </ChartFigure>
  )
}

/** The mean day of each month. */
export function MonthsChart({ months }: { months: UtilityViews['months'] }) {
  const data = months.map(m => ({ month: m.month, kWh: m.dailyWh / 1000 }))
  return (
    <ChartFigure
      height={270}
      title="A mean day, month by month"
      note="All energy of the month over its hours that were read."
      heads={['Month', 'A mean day']}
      rows={months.map(m => [m.month, quantity(m.dailyWh, 'Wh')])}
    >
      <BarChart data={data} margin={margin}>
        {grid}
        <XAxis dataKey="month" {...xAxis('month')} />
        <YAxis {...yAxis('a day, kWh')} />
        <Tooltip {...tip} formatter={v => `${figure(Number(v))} kWh`} />
        <Bar dataKey="kWh" name="a day" fill={water.deep} isAnimationActive={false} />
      </BarChart>
    </ChartFigure>
  )
}
