'use client'
import Button from '@mui/material/Button'
import { useState } from 'react'
import {
  Area,
  CartesianGrid,
  ComposedChart,
  Line,
  ReferenceArea,
  ReferenceLine,
  ResponsiveContainer,
  XAxis,
  YAxis,
} from 'recharts'
import type { Segmentation } from '@/core/loads/segment'
import { figure } from '@/core/units/format'
import { ticksBetween } from '@/core/units/ticks'
import type { ReadAbout } from '@/workers/meter-series'
import { FormField, numberTyped } from './fields'
import styles from './Loads.module.css'
import type { Seen } from './useMeterSeries'

interface Props {
  about: ReadAbout
  found: Segmentation
  seen: Seen
  leftOut: readonly { fromS: number; toS: number }[]
  onLook: (fromS: number, toS: number) => void
  onLeaveOut: (fromS: number, toS: number) => void
  onPutBack: () => void
}

const tick = { fill: 'var(--mui-palette-text-secondary)', fontSize: 12 }
/** More runs than this in one view would be a wall of colour. */
const mostBands = 120

/** The raw trace with the runs that were found in it; a stretch is marked by dragging or by its hours. */
export function TraceChart({ about, found, seen, leftOut, onLook, onLeaveOut, onPutBack }: Props) {
  const [from, setFrom] = useState('')
  const [to, setTo] = useState('')
  const [drag, setDrag] = useState<{ from: number; to: number } | null>(null)
  const data = seen.buckets.map(b => ({ h: b.tS / 3600, span: [b.low, b.high], mean: b.mean }))
  const fromH = numberTyped(from)
  const toH = numberTyped(to)
  const marked =
    typeof fromH === 'number' && typeof toH === 'number' && toH > fromH
      ? { fromS: fromH * 3600, toS: toH * 3600 }
      : null
  const runs = found.continuous ? [] : found.runs.filter(r => r.toS > seen.fromS && r.fromS < seen.toS)
  const whole = seen.fromS <= 0 && seen.toS >= about.lastS
  const domain: [number, number] = [seen.fromS / 3600, seen.toS / 3600]
  const shown = drag ?? (marked && { from: marked.fromS / 3600, to: marked.toS / 3600 })
  return (
    <figure style={{ margin: 0 }} aria-label="Trace of the readings">
      <div className={styles.chart}>
        <ResponsiveContainer>
          <ComposedChart
            data={data}
            margin={{ top: 8, right: 10, bottom: 20, left: 8 }}
            onMouseDown={e => {
              const at = Number(e?.activeLabel)
              if (Number.isFinite(at)) setDrag({ from: at, to: at })
            }}
            onMouseMove={e => {
              const at = Number(e?.activeLabel)
              if (drag && Number.isFinite(at)) setDrag({ ...drag, to: at })
            }}
            onMouseUp={() => {
              if (drag && drag.from !== drag.to) {
                setFrom(Math.min(drag.from, drag.to).toFixed(2))
                setTo(Math.max(drag.from, drag.to).toFixed(2))
              }
              setDrag(null)
            }}
          >
            <CartesianGrid stroke="var(--mui-palette-divider)" />
            <XAxis
              dataKey="h"
              type="number"
              domain={domain}
              ticks={ticksBetween(domain[0], domain[1], 8)}
              tick={tick}
              tickFormatter={(h: number) => figure(h)}
              label={{ value: 'hours since the first reading', position: 'bottom', offset: 2, ...tick }}
            />
            <YAxis
              tick={tick}
              width={58}
              tickFormatter={(w: number) => figure(w)}
              label={{ value: 'power, W', angle: -90, position: 'insideLeft', ...tick }}
            />
            {runs.length <= mostBands &&
              runs.map(r => (
                <ReferenceArea
                  key={r.fromS}
                  x1={Math.max(domain[0], r.fromS / 3600)}
                  x2={Math.min(domain[1], r.toS / 3600)}
                  fill="var(--mui-palette-water-live)"
                  fillOpacity={0.35}
                />
              ))}
            {leftOut.map(l => (
              <ReferenceArea
                key={l.fromS}
                x1={l.fromS / 3600}
                x2={l.toS / 3600}
                fill="var(--mui-palette-text-secondary)"
                fillOpacity={0.35}
              />
            ))}
            {shown && shown.from !== shown.to && (
              <ReferenceArea
                x1={Math.min(shown.from, shown.to)}
                x2={Math.max(shown.from, shown.to)}
                stroke="var(--mui-palette-primary-main)"
                fill="none"
              />
            )}
            <Area
              dataKey="span"
              stroke="none"
              fill="var(--mui-palette-water-deep)"
              fillOpacity={0.5}
              isAnimationActive={false}
            />
            <Line
              dataKey="mean"
              dot={false}
              stroke="var(--mui-palette-water-deep)"
              strokeWidth={1}
              isAnimationActive={false}
            />
            {!found.continuous && (
              <ReferenceLine
                y={found.onAboveW}
                stroke="var(--mui-palette-severity-stop)"
                strokeDasharray="6 4"
              />
            )}
          </ComposedChart>
        </ResponsiveContainer>
      </div>
      <figcaption className={styles.quiet}>
        {found.continuous
          ? 'It never stops: one level, no pauses. Drag over the trace, or type hours, to leave a stretch out.'
          : runs.length <= mostBands
            ? `Shaded: when it runs, above ${figure(found.onAboveW)} W (dashed). Drag over the trace, or type hours, to look closer or to leave a stretch out.`
            : `${runs.length} runs in view: drag over the trace, or type hours, and look closer to see them shaded.`}
      </figcaption>
      <div className={styles.tools}>
        <span className={styles.short}>
          <FormField label="From" unit="h" value={from} faults={[]} path="from" onChange={setFrom} />
        </span>
        <span className={styles.short}>
          <FormField label="To" unit="h" value={to} faults={[]} path="to" onChange={setTo} />
        </span>
        <Button size="small" disabled={!marked} onClick={() => marked && onLook(marked.fromS, marked.toS)}>
          Look closer
        </Button>
        <Button size="small" disabled={whole} onClick={() => onLook(0, about.lastS)}>
          Whole trace
        </Button>
        <Button
          size="small"
          disabled={!marked}
          onClick={() => marked && onLeaveOut(marked.fromS, marked.toS)}
        >
          Leave this out
        </Button>
        {leftOut.length > 0 && (
          <Button size="small" onClick={onPutBack}>
            Put all back
          </Button>
        )}
      </div>
    </figure>
  )
}
