import { Box } from '@mui/material'
import { inkOf, inks } from '@/core/formats/wire-inks'
import type { Task, Wire } from '@/core/order/task'
import { spacesOf } from '@/core/panel/positions'
import type { Panel } from '@/core/panel/schema'
import { text } from '../theme/tokens'

const rowPx = 13
const stepPx = 26
const most = 9

/** The place of a step: its panel with the breakers it is about, and its wires by colour and mark. */
export function StepDrawing({ task, panel }: { task: Task; panel: Panel | undefined }) {
  const wires = task.wires.slice(0, most)
  if (!panel && !wires.length) return null
  const rows = panel ? Math.ceil(panel.spaces / 2) : 0
  const height = Math.max(panel ? rows * rowPx + 32 : 0, wires.length * stepPx + 14)
  const left = panel ? 160 : 6
  return (
    <Box
      component="svg"
      role="img"
      aria-label={panel ? `${panel.name}: the place of this step` : 'The wires of this step'}
      viewBox={`0 0 360 ${height}`}
      sx={{ width: 1, maxHeight: 340, display: 'block', fontSize: text.mini, fill: 'currentColor' }}
    >
      {panel && (
        <DrawnPanel
          panel={panel}
          rows={rows}
          about={new Set(task.circuitIds)}
          lineLive={task.staysLive.some(p => p.id === `line ${panel.id}`)}
        />
      )}
      {wires.map((w, n) => (
        <DrawnWire key={`${w.mark} ${w.to}`} wire={w} y={14 + n * stepPx} left={left} />
      ))}
      {task.wires.length > most && (
        <text x={left} y={height - 2}>
          and {task.wires.length - most} more
        </text>
      )}
    </Box>
  )
}

interface DrawnProps {
  panel: Panel
  rows: number
  about: ReadonlySet<string>
  /** ahead of the main there is water still */
  lineLive: boolean
}

function DrawnPanel({ panel, rows, about, lineLive }: DrawnProps) {
  const at = new Map(panel.circuits.flatMap(c => spacesOf(c).map(s => [s, c] as const)))
  return (
    <g>
      <rect x="1" y="1" width="142" height={rows * rowPx + 28} rx="4" fill="none" stroke="currentColor" />
      {lineLive && (
        <Box
          component="rect"
          x={2}
          y={2}
          width={140}
          height={17}
          rx={3}
          sx={{ fill: 'var(--mui-palette-severity-stop)' }}
        />
      )}
      <Box
        component="text"
        x={72}
        y={15}
        textAnchor="middle"
        sx={lineLive ? { fill: 'var(--mui-palette-background-paper)', fontWeight: 800 } : undefined}
      >
        {panel.mainA === undefined ? 'lugs' : `main ${panel.mainA} A`}
        {lineLive && ': LIVE'}
      </Box>
      {Array.from({ length: panel.spaces }, (_, i) => i + 1).map(space => {
        const circuit = at.get(space)
        const here = circuit !== undefined && about.has(circuit.id)
        const x = space % 2 ? 8 : 76
        const y = 22 + Math.floor((space - 1) / 2) * rowPx
        return (
          <g key={space}>
            <Box
              component="rect"
              x={x}
              y={y}
              width={60}
              height={rowPx - 2}
              rx={2}
              sx={{
                fill: here
                  ? 'var(--mui-palette-primary-main)'
                  : circuit
                    ? 'var(--mui-palette-water-dry)'
                    : 'none',
                stroke: here ? 'currentColor' : 'var(--mui-palette-divider)',
                strokeWidth: here ? 2 : 1,
              }}
            />
            {here && (
              <Box
                component="text"
                x={x + 30}
                y={y + rowPx - 3}
                textAnchor="middle"
                sx={{ fill: 'var(--mui-palette-primary-contrastText)', fontWeight: 800 }}
              >
                {space}
              </Box>
            )}
          </g>
        )
      })}
    </g>
  )
}

/** A wire on a strip of paper, so that a white one and a black one are seen by day and by night. */
function DrawnWire({ wire, y, left }: { wire: Wire; y: number; left: number }) {
  const ink = inkOf(wire.colour)
  const { line, rim } = ink ? inks[ink] : { line: 'var(--ink-rule)', rim: null }
  return (
    <g>
      <rect
        x={left}
        y={y - 8}
        width="70"
        height="16"
        rx="3"
        fill="var(--ink-paper)"
        stroke="var(--ink-rule)"
      />
      {rim && <path d={`M${left + 3} ${y}h64`} stroke={rim} strokeWidth="6" />}
      <path
        d={`M${left + 3} ${y}h64`}
        stroke={line}
        strokeWidth="4"
        strokeDasharray={wire.ground ? '9 4' : undefined}
      />
      <text x={left + 78} y={y + 4} fontWeight="700">
        {wire.mark.length > 20 ? `${wire.mark.slice(0, 19)}…` : wire.mark}
      </text>
    </g>
  )
}
