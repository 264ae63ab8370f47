import { Box, Button } from '@mui/material'
import { scaleLinear } from 'd3-scale'
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
import type { ReadAbout } from '@/workers/desks/meter-readings'
import { margin, xAxis, yAxis } from '../common/chart'
import { Quiet, Row } from '../common/pieces'
import { NumberInput } from '../form/NumberInput'
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

/** More runs than this in one view would be a wall of colour. */
const mostBands = 120

/** The raw trace with the runs that were found in it; a stretch is marked by dragging or by its hours. */
export function TraceChart({ about, found, seen, leftOut, onLook, onLeaveOut, onPutBack }: Props) {
  const [from, setFrom] = useState<number | string | undefined>()
  const [to, setTo] = useState<number | string | undefined>()
  const [drag, setDrag] = useState<{ from: number; to: number } | null>(null)
  const data = seen.buckets.map(b => ({ h: b.tS / 3600, span: [b.low, b.high], mean: b.mean }))
  const marked =
    typeof from === 'number' && typeof to === 'number' && to > from
      ? { fromS: from * 3600, toS: to * 3600 }
      : null
  const runs = found.continuous ? [] : found.runs.filter(r => r.toS > seen.fromS && r.fromS < seen.toS)
  const whole = seen.fromS <= 0 && seen.toS >= about.lastS
  const domain: [number, number] = [seen.fromS / 3600, seen.toS / 3600]
  const shown = drag ?? (marked && { from: marked.fromS / 3600, to: marked.toS / 3600 })
  return (
    <figure style={{ margin: 0 }} aria-label="Trace of the readings">
      <Box sx={{ height: 270 }}>
        <ResponsiveContainer>
          <ComposedChart
            data={data}
            margin={margin}
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
                setFrom(Number(Math.min(drag.from, drag.to).toFixed(2)))
                setTo(Number(Math.max(drag.from, drag.to).toFixed(2)))
              }
              setDrag(null)
            }}
          >
            <CartesianGrid stroke="var(--mui-palette-divider)" />
            <XAxis
              dataKey="h"
              type="number"
              domain={domain}
              ticks={scaleLinear(domain, []).ticks(8)}
              {...xAxis('hours since the first reading')}
              tickFormatter={(h: number) => figure(h)}
            />
            <YAxis {...yAxis('power, W')} />
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
      </Box>
      <Quiet component="figcaption">
        {found.continuous
          ? 'It never stops: one level, no pauses. Drag over the trace, or type hours, to leave a stretch out.'
          : runs.length <= mostBands
            ? `Shaded: when it runs, above ${figure(found.onAboveW)} W (dashed). Drag over the trace, or type hours, to look closer or to leave a stretch out.`
            : `${runs.length} runs in view: drag over the trace, or type hours, and look closer to see them shaded.`}
      </Quiet>
      <Row sx={{ mt: 1, '& .MuiTextField-root': { width: 120 } }}>
        <NumberInput id="trace-from" label="From" unit="h" value={from} onChange={setFrom} />
        <NumberInput id="trace-to" label="To" unit="h" value={to} onChange={setTo} />
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
      </Row>
    </figure>
  )
}
