import { Box } from '@mui/material'
import type { Notice, NoticeSpot } from '@/core/work/notices'
import { text } from '../theme/tokens'

const names: Record<NoticeSpot, string> = {
  service: 'service equipment',
  panel: 'panel',
  switch: 'switch',
  inlet: 'inlet',
  inverter: 'inverter',
  battery: 'battery',
  wires: 'ends of wires',
}
const wide = 128
const gap = 26

/** Where each notice goes: the equipment of the job, with the numbers of the notices on it. */
export function WherePicture({ notices }: { notices: readonly Notice[] }) {
  const used = (Object.keys(names) as NoticeSpot[]).filter(s => notices.some(n => n.spot === s))
  const width = used.length * (wide + gap)
  return (
    <Box
      component="svg"
      role="img"
      aria-label={`Where they go: ${used.map(s => `${names[s]} ${numbers(notices, s)}`).join('; ')}`}
      viewBox={`0 0 ${width} 76`}
      sx={{ width: 1, maxWidth: width, display: 'block', fontSize: text.mini, fill: 'currentColor' }}
    >
      {used.map((spot, n) => {
        const x = n * (wide + gap) + 1
        return (
          <g key={spot}>
            {n > 0 && <path d={`M${x - gap} 38h${gap}`} stroke="currentColor" strokeWidth="2" />}
            <rect
              x={x}
              y={2}
              width={wide}
              height={72}
              rx="4"
              fill="none"
              stroke="currentColor"
              strokeWidth="1.5"
            />
            <text x={x + wide / 2} y={20} textAnchor="middle">
              {names[spot]}
            </text>
            <Box
              component="text"
              x={x + wide / 2}
              y={52}
              textAnchor="middle"
              sx={{ fontSize: text.lead, fontWeight: 800 }}
            >
              {numbers(notices, spot)}
            </Box>
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
