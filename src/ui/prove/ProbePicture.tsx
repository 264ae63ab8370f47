import { Box } from '@mui/material'
import type { Asked } from '@/core/commission/tests'
import { text } from '../theme/tokens'

/** A point that a probe goes to: where it is drawn, and its name. */
type Points = Readonly<Record<string, readonly [x: number, y: number, name: string]>>

/** What an instrument is held to, as one looks at it: a row for each kind of place. */
const faces: Record<'outlet' | 'inlet' | 'panel', { label: string; points: Points; shape: React.ReactNode }> =
  {
    outlet: {
      label: 'An outlet: neutral left, hot right, ground below',
      points: {
        N: [150, 58, 'neutral'],
        H: [210, 58, 'hot'],
        G: [180, 110, 'ground'],
        H2: [150, 58, 'second hot'],
        L1: [210, 58, 'hot'],
        L2: [150, 58, 'second hot'],
      },
      shape: (
        <>
          <rect x="110" y="14" width="140" height="126" rx="14" fill="none" stroke="currentColor" />
          <path
            d="M150 42v32M210 45v26M170 110a10 10 0 0 1 20 0v8h-20z"
            stroke="currentColor"
            strokeWidth="5"
            fill="none"
          />
        </>
      ),
    },
    inlet: {
      label: 'An inlet with its pins: the legs, neutral, and ground',
      points: {
        L1: [222, 62, 'L1'],
        L2: [138, 62, 'L2'],
        N: [180, 122, 'neutral'],
        G: [180, 30, 'ground'],
      },
      shape: (
        <>
          <circle cx="180" cy="77" r="66" fill="none" stroke="currentColor" />
          <path d="M222 50v24M138 50v24M168 122h24M180 24v12" stroke="currentColor" strokeWidth="6" />
        </>
      ),
    },
    panel: {
      label: 'The bars of a panel: two legs, neutral, ground',
      points: {
        L1: [130, 34, 'L1'],
        L2: [230, 34, 'L2'],
        N: [120, 118, 'neutral'],
        G: [240, 118, 'ground'],
        'G bar': [240, 118, 'ground bar'],
        H: [130, 34, 'hot'],
      },
      shape: (
        <>
          <rect x="90" y="8" width="180" height="138" rx="6" fill="none" stroke="currentColor" />
          <path d="M130 22v60M230 22v60" stroke="currentColor" strokeWidth="7" />
          <path d="M102 118h46" stroke="currentColor" strokeWidth="9" />
          <path d="M218 118h44" stroke="currentColor" strokeWidth="9" strokeDasharray="6 3" />
        </>
      ),
    },
  }

const faceOf = (place: string): keyof typeof faces | null =>
  place === 'inlet'
    ? 'inlet'
    : /^(far|unit|dip) /.test(place)
      ? 'outlet'
      : /^(line|bus|input|lifted)\b/.test(place)
        ? 'panel'
        : null

const clamped = /^(ground|hot|inrush) /

/** Where the probes go for one reading: the place as one looks at it, with the two leads. Nothing where nothing is held to anything. */
export function ProbePicture({ asked }: { asked: Asked }) {
  const { place, points, at } = asked.probe
  const face = faceOf(place)
  const said = `${asked.name}: ${at}`
  if (clamped.test(place)) return <Picture label={said}>{jaw(points[0])}</Picture>
  if (place.startsWith('box ')) return <Picture label={said}>{longLead}</Picture>
  if (!face) return null
  const { shape, points: known } = faces[face]
  const [a, b] = points.map(p => known[p])
  if (!a || !b) return null
  // each lead comes from its own side: they do not cross
  const left = a[0] < b[0] || (a[0] === b[0] && a[1] < b[1])
  return (
    <Picture label={said}>
      <g opacity="0.75">{shape}</g>
      <Lead from={a} to={[left ? 36 : 324, 150]} ink="severity-stop" />
      <Lead from={b} to={[left ? 324 : 36, 150]} ink="text-primary" />
      <text x={left ? 4 : 356} y="30" textAnchor={left ? 'start' : 'end'}>
        {a[2]}
      </text>
      <text x={left ? 356 : 4} y="30" textAnchor={left ? 'end' : 'start'}>
        {b[2]}
      </text>
    </Picture>
  )
}

/** A lead to a point, and its tip. */
function Lead({
  from: [x, y],
  to: [tx, ty],
  ink,
}: {
  from: readonly [number, number, string]
  to: [number, number]
  ink: string
}) {
  const colour = `var(--mui-palette-${ink})`
  return (
    <g>
      <path
        d={`M${x} ${y} Q ${(x + tx) / 2} ${ty + 30}, ${tx} ${ty}`}
        fill="none"
        stroke={colour}
        strokeWidth="3.5"
      />
      <circle
        cx={x}
        cy={y}
        r="7.5"
        fill="var(--mui-palette-background-paper)"
        stroke={colour}
        strokeWidth="3.5"
      />
    </g>
  )
}

const Picture = ({ label, children }: { label: string; children: React.ReactNode }) => (
  <Box
    component="svg"
    role="img"
    aria-label={label}
    viewBox="0 0 360 170"
    sx={{
      width: 1,
      maxHeight: 190,
      display: 'block',
      fontSize: text.quiet,
      fontWeight: 700,
      fill: 'currentColor',
    }}
  >
    {children}
  </Box>
)

/** A clamp round one wire. */
const jaw = (wire: string) => (
  <>
    <path
      d="M40 84h280"
      stroke={wire === 'G' ? 'var(--ink-wire-ground, currentColor)' : 'currentColor'}
      strokeWidth="6"
      strokeDasharray={wire === 'G' ? '14 6' : undefined}
    />
    <path
      d="M180 44a40 40 0 0 1 0 80"
      fill="none"
      stroke="var(--mui-palette-severity-stop)"
      strokeWidth="9"
    />
    <path d="M180 44a40 40 0 0 0 0 80" fill="none" stroke="var(--mui-palette-text-primary)" strokeWidth="9" />
    <rect x="160" y="124" width="40" height="42" rx="6" fill="none" stroke="currentColor" strokeWidth="3" />
    <text x="40" y="66">
      {wire === 'G' ? 'ground alone' : 'hot alone'}
    </text>
  </>
)

/** From the bar in the panel to the last box by a long lead. */
const longLead = (
  <>
    <rect x="14" y="30" width="92" height="110" rx="6" fill="none" stroke="currentColor" />
    <path d="M28 112h62" stroke="currentColor" strokeWidth="9" strokeDasharray="6 3" />
    <rect x="270" y="52" width="70" height="70" rx="6" fill="none" stroke="currentColor" />
    <path
      d="M60 112 C 110 176, 250 176, 300 98"
      fill="none"
      stroke="var(--mui-palette-severity-stop)"
      strokeWidth="3.5"
    />
    <circle
      cx="60"
      cy="112"
      r="7"
      fill="var(--mui-palette-background-paper)"
      stroke="var(--mui-palette-severity-stop)"
      strokeWidth="3.5"
    />
    <circle
      cx="300"
      cy="98"
      r="7"
      fill="var(--mui-palette-background-paper)"
      stroke="var(--mui-palette-severity-stop)"
      strokeWidth="3.5"
    />
    <text x="14" y="22">
      ground bar
    </text>
    <text x="346" y="42" textAnchor="end">
      last box
    </text>
  </>
)
