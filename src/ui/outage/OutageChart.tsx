import { type ScaleLinear, scaleLinear } from 'd3-scale'
import { area, curveStepAfter, line } from 'd3-shape'
import { memo, type PointerEvent, useId } from 'react'
import type { Chance } from '@/core/outage/chance'
import type { EventKind } from '@/core/outage/course-outcome'
import { flowsOf, type Layer, levelAt } from '@/core/outage/picture'
import type { Plan } from '@/core/outage/plan'
import type { CourseTrace } from '@/core/outage/trace'
import { figure, hourText, quantity } from '@/core/units/format'
import styles from './Outage.module.css'

type Hours = ArrayLike<number>
type Scale = ScaleLinear<number, number>

const width = 780
const left = 74
const right = 14
const storeTop = 20
const storeHeight = 220
const lane = 34
const flowTop = storeTop + storeHeight + lane
const flowHeight = 150
const height = flowTop + flowHeight + 46

const glyphs: Record<EventKind, string> = {
  sunrise: '↑',
  sunset: '↓',
  'generator on': 'G',
  'generator off': 'g',
  'fuel gone': 'f',
  'let go': '−',
  'back on': '+',
  trip: '!',
  reset: 'r',
  'store empty': '0',
  'store back': '1',
  full: '=',
}

export interface Overlay {
  name: string
  mean: CourseTrace
  chance: Chance | null
}

interface Props {
  plan: Plan
  /** the course that is drawn: the mean, or a single draw */
  trace: CourseTrace
  chance: Chance | null
  overlay: Overlay | null
  hour: number
  onHour: (hour: number) => void
}

/** The store as water with its band, and below it what flows in and out; a line at the hour that is looked at. */
export const OutageChart = memo(function OutageChart({ plan, trace, chance, overlay, hour, onHour }: Props) {
  const id = useId()
  const { points } = trace
  const end = Math.max(plan.hours, overlay?.mean.hours ?? 0)
  const topWh = Math.max(
    trace.capacityWh,
    overlay?.mean.capacityWh ?? 0,
    ...(chance ? [chance.bands.p95[0] ?? 0] : []),
    1,
  )
  const x = scaleLinear([0, end], [left, width - right])
  const y = scaleLinear([0, topWh], [storeTop + storeHeight, storeTop])
  const flows = flowsOf(trace)
  const flow = scaleLinear(
    [flows.mostIn, -(flows.mostOut || (flows.mostIn ? 0 : 1))],
    [flowTop, flowTop + flowHeight],
  )
  const zero = flow(0)
  const course = (hours: Hours, values: Hours) =>
    line<number>(x, (_, i) => y(values[i] ?? 0)).digits(1)(Array.from(hours)) ?? ''
  const between = (hours: Hours, low: (i: number) => number, high: (i: number) => number) =>
    area<number>(
      x,
      (_, i) => y(low(i)),
      (_, i) => y(high(i)),
    ).digits(1)(Array.from(hours)) ?? ''
  const aim = (event: PointerEvent<SVGSVGElement>) => {
    if (event.type === 'pointermove' && event.buttons === 0) return
    const box = event.currentTarget.getBoundingClientRect()
    const at = x.invert(((event.clientX - box.left) / box.width) * width)
    onHour(Math.max(0, Math.min(plan.hours, at)))
  }
  const bands = chance?.bands
  // the name of the fuller store stands below its line, where the sum of both is not
  const fuller = (points.storesWh[0]?.at(-1) ?? 0) > (points.storesWh[1]?.at(-1) ?? 0) ? 0 : 1
  const clock = (h: number) => hourText((trace.beginsH + h) % 24)
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className={styles.svg}
      role="img"
      aria-label={`Store and flows over ${quantity(plan.hours, 'h')}; tables below`}
      onPointerDown={aim}
      onPointerMove={aim}
    >
      <defs>
        <pattern
          id={`${id}sun`}
          width="6"
          height="6"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <rect width="6" height="6" className={styles.sunFill} />
          <line x1="0" x2="0" y1="0" y2="6" className={styles.hatch} />
        </pattern>
        <pattern id={`${id}gen`} width="5" height="5" patternUnits="userSpaceOnUse">
          <rect width="5" height="5" className={styles.genFill} />
          <circle cx="2.5" cy="2.5" r="1" className={styles.dots} />
        </pattern>
      </defs>
      <path
        d={between(
          points.hour,
          () => 0,
          i => points.levelWh[i] ?? 0,
        )}
        className={styles.water}
      />
      {bands && (
        <>
          <path
            d={between(
              bands.hours,
              i => bands.p5[i] ?? 0,
              i => bands.p95[i] ?? 0,
            )}
            className={styles.bandWide}
          />
          <path
            d={between(
              bands.hours,
              i => bands.p25[i] ?? 0,
              i => bands.p75[i] ?? 0,
            )}
            className={styles.bandNarrow}
          />
        </>
      )}
      <path d={course(points.hour, points.levelWh)} className={styles.surface} />
      {plan.stores.length > 1 &&
        points.storesWh.map((series, k) => (
          <g key={plan.stores[k]?.name}>
            <path d={course(points.hour, series)} className={styles.oneStore} />
            <text x={x(plan.hours) - 4} y={y(series.at(-1) ?? 0) + (k === fuller ? 15 : -5)} textAnchor="end">
              {plan.stores[k]?.name}
            </text>
          </g>
        ))}
      {overlay && (
        <path d={course(overlay.mean.points.hour, overlay.mean.points.levelWh)} className={styles.overlay} />
      )}
      {trace.reserveWh > 0 && (
        <>
          <rect
            x={x(0)}
            width={x(plan.hours) - x(0)}
            y={y(trace.reserveWh)}
            height={y(0) - y(trace.reserveWh)}
            className={styles.reserve}
          />
          <text x={x(0) + 6} y={y(trace.reserveWh) - 5}>
            reserve {quantity(trace.reserveWh, 'Wh')}
          </text>
        </>
      )}
      {y.ticks(4).map(Wh => (
        <g key={Wh}>
          <line x1={left} x2={width - right} y1={y(Wh)} y2={y(Wh)} className={styles.grid} />
          <text x={left - 7} y={y(Wh) + 4} textAnchor="end">
            {figure(Wh)}
          </text>
        </g>
      ))}
      <text transform={`translate(15 ${storeTop + storeHeight / 2}) rotate(-90)`} textAnchor="middle">
        store, Wh
      </text>
      <line x1={left} x2={width - right} y1={y(0)} y2={y(0)} className={styles.axis} />

      {spread(trace.marks, x).map(({ mark, at }) => (
        <g key={`${mark.kind}${mark.hour}${mark.about}`} className={styles.mark} data-kind={mark.kind}>
          <title>{`${mark.kind} at ${figure(mark.hour)} h`}</title>
          <line x1={at} x2={at} y1={y(0)} y2={y(0) + 6} />
          <text x={at} y={y(0) + 21} textAnchor="middle">
            {glyphs[mark.kind]}
          </text>
        </g>
      ))}

      {flows.layers.map(layer => (
        <path
          key={layer.name}
          d={layerPath(layer, points.hour, x, flow)}
          className={styles[layer.className]}
          fill={
            layer.className === 'sun'
              ? `url(#${id}sun)`
              : layer.className === 'gen'
                ? `url(#${id}gen)`
                : undefined
          }
        />
      ))}
      {flow.ticks(4).map(W => (
        <text key={W} x={left - 7} y={flow(W) + 4} textAnchor="end">
          {figure(Math.abs(W))}
        </text>
      ))}
      <line x1={left} x2={width - right} y1={zero} y2={zero} className={styles.axis} />
      <text transform={`translate(15 ${flowTop + flowHeight / 2}) rotate(-90)`} textAnchor="middle">
        out · W · in
      </text>
      {x.ticks(5).map(h => (
        <text
          key={h}
          x={x(h)}
          y={flowTop + flowHeight + 18}
          textAnchor={h === 0 ? 'start' : h > end * 0.94 ? 'end' : 'middle'}
        >
          {figure(h)} h{plan.beginsH === null ? '' : ` · ${clock(h)}`}
        </text>
      ))}
      <text x={(left + width - right) / 2} y={height - 8} textAnchor="middle">
        hours of outage{plan.beginsH === null ? '' : ' · hour of the day'}
      </text>
      <g className={styles.cursor}>
        <line x1={x(hour)} x2={x(hour)} y1={storeTop - 6} y2={flowTop + flowHeight} />
        <circle cx={x(hour)} cy={y(levelAt(trace, hour))} r={5} />
      </g>
    </svg>
  )
})

/** Steps, since each figure is the mean of its stretch. */
const layerPath = (layer: Layer, hours: Hours, x: Scale, y: Scale) =>
  area<number>(
    x,
    (_, i) => y(layer.low[i] ?? 0),
    (_, i) => y(layer.high[i] ?? 0),
  )
    .curve(curveStepAfter)
    .digits(1)(Array.from(hours)) ?? ''

/** Marks side by side where they would cover each other; the commonest kinds give way when there are too many. */
function spread(marks: CourseTrace['marks'], x: Scale) {
  const shown = marks.length > 60 ? marks.filter(m => m.kind !== 'reset' && m.kind !== 'full') : marks
  let last = Number.NEGATIVE_INFINITY
  return shown.slice(0, 80).flatMap(mark => {
    const at = Math.max(x(mark.hour), last + 9)
    if (at > width) return []
    last = at
    return [{ mark, at }]
  })
}

export const markGlyphs = glyphs

/** The marks that are drawn, in words: `↑ sunrise, G generator on`. */
export function marksText({ marks }: CourseTrace): string {
  const kinds = new Set(marks.map(m => m.kind))
  const named = (Object.keys(glyphs) as EventKind[]).filter(k => kinds.has(k)).map(k => `${glyphs[k]} ${k}`)
  return named.length ? `Marks: ${named.join(', ')}.` : ''
}
