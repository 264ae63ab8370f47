import { Paper } from '@mui/material'
import { Scatter, ScatterChart, Tooltip, XAxis, YAxis } from 'recharts'
import type { Found } from '@/core/search/front'
import { figure } from '@/core/units/format'
import { grid, ink, margin, water, xAxis, yAxis } from '../common/chart'

interface Props {
  front: Found[]
  all: Found[]
  by: 'price' | 'weight' | 'hours'
  title: string
  unit: string
}

const pick = (f: Found, by: Props['by']) =>
  by === 'price' ? f.price : by === 'weight' ? f.weightLb : f.hours

/** The front: what each bit of chance costs. The table below holds the same. */
export function FrontChart({ front, all, by, title, unit }: Props) {
  const points = (list: Found[]) =>
    list.map(f => ({ x: pick(f, by), y: 100 * f.chance.fraction, name: f.name })).sort((a, b) => a.x - b.x)
  return (
    <div role="img" aria-label={`${title} against the chance of lasting; table below`}>
      <ScatterChart responsive style={{ width: '100%', height: 240 }} margin={margin}>
        {grid}
        <XAxis
          type="number"
          dataKey="x"
          domain={['auto', 'auto']}
          {...xAxis(`${title}, ${unit}`)}
          tickFormatter={figure}
        />
        <YAxis
          type="number"
          dataKey="y"
          domain={[0, 100]}
          ticks={[0, 25, 50, 75, 100]}
          {...yAxis('lasts, of 100')}
        />
        <Tooltip
          cursor={false}
          content={({ payload }) => {
            const at = payload?.[0]?.payload as { name: string; x: number; y: number } | undefined
            return at ? (
              <Paper variant="outlined" sx={{ p: 1, maxWidth: 340 }}>
                {at.name}: {figure(at.x)} {unit}, {figure(at.y)} of 100
              </Paper>
            ) : null
          }}
        />
        <Scatter data={points(all)} fill={ink} fillOpacity={0.45} isAnimationActive={false} />
        <Scatter
          data={points(front)}
          line={{ stroke: water.deep, strokeDasharray: '4 3' }}
          fill={water.deep}
          isAnimationActive={false}
        />
      </ScatterChart>
    </div>
  )
}
