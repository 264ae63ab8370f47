'use client'
import { CartesianGrid, Scatter, ScatterChart, Tooltip, XAxis, YAxis } from 'recharts'
import type { Found } from '@/core/search/search'
import { figure } from '@/core/units/format'
import styles from './Outage.module.css'

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
    <div
      className={styles.front}
      role="img"
      aria-label={`${title} against the chance of lasting; table below`}
    >
      <ScatterChart
        responsive
        style={{ width: '100%', height: 240 }}
        margin={{ top: 10, right: 24, bottom: 26, left: 18 }}
      >
        <CartesianGrid strokeDasharray="1 4" stroke="var(--mui-palette-divider)" />
        <XAxis
          type="number"
          dataKey="x"
          domain={['auto', 'auto']}
          tickFormatter={figure}
          stroke="var(--mui-palette-text-secondary)"
          label={{
            value: `${title}, ${unit}`,
            position: 'insideBottom',
            offset: -14,
            fill: 'var(--mui-palette-text-secondary)',
          }}
        />
        <YAxis
          type="number"
          dataKey="y"
          domain={[0, 100]}
          ticks={[0, 25, 50, 75, 100]}
          stroke="var(--mui-palette-text-secondary)"
          label={{
            value: 'lasts, of 100',
            angle: -90,
            position: 'insideLeft',
            offset: 0,
            fill: 'var(--mui-palette-text-secondary)',
          }}
        />
        <Tooltip
          cursor={false}
          content={({ payload }) => {
            const at = payload?.[0]?.payload as { name: string; x: number; y: number } | undefined
            return at ? (
              <div className={styles.tip}>
                {at.name}: {figure(at.x)} {unit}, {figure(at.y)} of 100
              </div>
            ) : null
          }}
        />
        <Scatter
          data={points(all)}
          fill="var(--mui-palette-text-secondary)"
          fillOpacity={0.45}
          isAnimationActive={false}
        />
        <Scatter
          data={points(front)}
          line={{ stroke: 'var(--mui-palette-water-deep)', strokeDasharray: '4 3' }}
          fill="var(--mui-palette-water-deep)"
          isAnimationActive={false}
        />
      </ScatterChart>
    </div>
  )
}
