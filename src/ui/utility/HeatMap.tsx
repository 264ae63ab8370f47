import { Paper } from '@mui/material'
import { useColorScheme } from '@mui/material/styles'
import { useEffect, useRef, useState } from 'react'
import type { UtilityViews } from '@/core/loads/utility-year'
import { quantity } from '@/core/units/format'
import styles from './HeatMap.module.css'

/** From pale to deep: light first, then the dark scheme. The deeper, the more is drawn. */
const ramps = {
  light: [
    [238, 243, 242],
    [9, 66, 92],
  ],
  dark: [
    [28, 38, 42],
    [150, 226, 236],
  ],
} as const
const gap = { light: [255, 255, 255], dark: [12, 16, 18] } as const
const rgb = (c: readonly number[]) => `rgb(${c.join(' ')})`

/** Day by hour: a column for each day, a row for each hour, the deeper the more is drawn. */
export function HeatMap({ days }: { days: UtilityViews['days'] }) {
  const canvas = useRef<HTMLCanvasElement>(null)
  const [at, setAt] = useState<{ day: number; hour: number } | null>(null)
  const { mode, systemMode } = useColorScheme()
  const scheme = (mode === 'system' ? systemMode : mode) === 'dark' ? 'dark' : 'light'
  const most = Math.max(1, ...days.flatMap(d => d.W.map(w => w ?? 0)))
  const [low, high] = ramps[scheme]
  useEffect(() => {
    const context = canvas.current?.getContext('2d')
    if (!context) return
    const image = context.createImageData(days.length, 24)
    days.forEach(({ W }, x) => {
      W.forEach((w, y) => {
        const share = w === null ? 0 : Math.sqrt(w / most)
        const put = (c: number) =>
          w === null ? gap[scheme][c] : (low[c] ?? 0) + ((high[c] ?? 0) - (low[c] ?? 0)) * share
        const i = (y * days.length + x) * 4
        image.data[i] = put(0) ?? 0
        image.data[i + 1] = put(1) ?? 0
        image.data[i + 2] = put(2) ?? 0
        image.data[i + 3] = 255
      })
    })
    context.putImageData(image, 0, 0)
  }, [days, most, scheme, low, high])
  const cell = at && days[at.day]
  const W = cell && at ? cell.W[at.hour] : null
  const said =
    cell && at
      ? `${cell.day}, ${at.hour}:00: ${W === null || W === undefined ? 'not read' : quantity(W, 'W')}`
      : 'Point at an hour to read it; arrow keys work too.'
  const move = (day: number, hour: number) =>
    setAt({ day: Math.min(days.length - 1, Math.max(0, day)), hour: Math.min(23, Math.max(0, hour)) })
  const months = days.flatMap((d, n) => (d.day.endsWith('-01') ? [{ n, label: d.day.slice(0, 7) }] : []))
  return (
    <Paper component="figure" variant="outlined" sx={{ p: 1.5 }} aria-label="Day by hour">
      <h2>Day by hour</h2>
      <div style={{ display: 'grid', gridTemplateColumns: '44px 1fr', gap: 4 }}>
        <div className={styles.hours}>
          <span>0:00</span>
          <span>6:00</span>
          <span>12:00</span>
          <span>18:00</span>
          <span>24:00</span>
        </div>
        <div
          role="img"
          // biome-ignore lint/a11y/noNoninteractiveTabindex: the picture is read hour by hour with the arrow keys
          tabIndex={0}
          aria-label={`Day by hour, ${days[0]?.day} to ${days.at(-1)?.day}. ${said}`}
          onKeyDown={e => {
            const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[
              e.key
            ]
            if (!step) return
            e.preventDefault()
            const from = at ?? { day: 0, hour: 0 }
            move(from.day + (step[0] ?? 0), from.hour + (step[1] ?? 0))
          }}
          onPointerMove={e => {
            const box = e.currentTarget.getBoundingClientRect()
            move(
              Math.floor(((e.clientX - box.left) / box.width) * days.length),
              Math.floor(((e.clientY - box.top) / box.height) * 24),
            )
          }}
        >
          <canvas ref={canvas} width={days.length} height={24} className={styles.heat} />
        </div>
        <span />
        <div className={styles.axis} style={{ position: 'relative', height: 20 }}>
          {months.map((m, i) => (
            <span
              key={m.label}
              style={{
                position: 'absolute',
                left: `${(100 * m.n) / days.length}%`,
                display: i % 2 && months.length > 8 ? 'none' : undefined,
              }}
            >
              {m.label}
            </span>
          ))}
        </div>
      </div>
      <figcaption className={styles.scale}>
        <span>0 W</span>
        <span
          className={styles.ramp}
          style={{ '--heat-low': rgb(low), '--heat-high': rgb(high) } as React.CSSProperties}
        />
        <span>{quantity(most, 'W')}</span>
        <span role="status">{said}</span>
      </figcaption>
    </Paper>
  )
}
