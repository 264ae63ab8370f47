import { Bar, BarChart, XAxis, YAxis } from 'recharts'
import { figure } from '@/core/units/format'
import { ChartFigure, grid, margin, water, xAxis, yAxis } from '../common/chart'

/** The share of the time that it runs, by hour of the day. */
export function HoursChart({ duty }: { duty: readonly (number | null)[] }) {
  const data = duty.map((d, hour) => ({ hour, percent: d === null ? 0 : 100 * d }))
  return (
    <ChartFigure
      title="Share of the time it runs, by hour of the day"
      heads={['Hour', 'Runs']}
      rows={data.map(d => [`${d.hour}:00`, `${figure(d.percent)} %`])}
      height={170}
    >
      <BarChart data={data} margin={margin}>
        {grid}
        <XAxis dataKey="hour" interval={2} {...xAxis('hour of the day')} />
        <YAxis {...yAxis('runs, %')} />
        <Bar dataKey="percent" fill={water.deep} isAnimationActive={false} />
      </BarChart>
    </ChartFigure>
  )
}
