import { Box } from '@mui/material'
import type { Notice, NoticeSpot } from '@/core/work/notices'
import { text } from '../theme/tokens'

const spots: Record<NoticeSpot, { name: string; x: number; y: number; w: number; h: number }> = {
  service: { name: 'service equipment', x: 8, y: 8, w: 92, h: 120 },
  panel: { name: 'panel', x: 128, y: 8, w: 92, h: 120 },
  switch: { name: 'switch', x: 248, y: 8, w: 76, h: 56 },
  inlet: { name: 'inlet', x: 248, y: 76, w: 76, h: 52 },
  inverter: { name: 'inverter', x: 352, y: 8, w: 92, h: 56 },
  battery: { name: 'battery', x: 352, y: 76, w: 92, h: 52 },
  wires: { name: 'wires', x: 472, y: 8, w: 92, h: 120 },
}

/** Where each notice goes: the equipment of the job, with the numbers of the notices on it. */
export function WherePicture({ notices }: { notices: readonly Notice[] }) {
  const used = [...new Set(notices.map(n => n.spot))]
  return (
    <Box
      component="svg"
      role="img"
      aria-label={`Where they go: ${used.map(s => `${spots[s].name} ${numbers(notices, s)}`).join('; ')}`}
      viewBox="0 0 572 136"
      sx={{ width: 1, maxWidth: 640, display: 'block', fontSize: text.mini, fill: 'currentColor' }}
    >
      {used.map(spot => {
        const { name, x, y, w, h } = spots[spot]
        return (
          <g key={spot}>
            <rect
              x={x}
              y={y}
              width={w}
              height={h}
              rx="4"
              fill="none"
              stroke="currentColor"
              strokeWidth="1.5"
            />
            <text x={x + w / 2} y={y + 15} textAnchor="middle">
              {name}
            </text>
            <text x={x + w / 2} y={y + 36} textAnchor="middle" fontWeight="800">
              {numbers(notices, spot)}
            </text>
          </g>
        )
      })}
    </Box>
  )
}

/** Their numbers, those that follow each other as a run. */
function numbers(notices: readonly Notice[], spot: NoticeSpot): string {
  const at = notices.flatMap((n, i) => (n.spot === spot ? [i + 1] : []))
  const runs: [number, number][] = []
  for (const n of at) {
    const last = runs.at(-1)
    if (last && last[1] === n - 1) last[1] = n
    else runs.push([n, n])
  }
  return runs.map(([a, b]) => (a === b ? `${a}` : `${a}–${b}`)).join(', ')
}
