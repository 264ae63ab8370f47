import { Box, Button, Paper } from '@mui/material'
import { type ReactElement, type ReactNode, useState } from 'react'
import { CartesianGrid, ResponsiveContainer } from 'recharts'
import { figure } from '@/core/units/format'
import { chartText } from '../theme/tokens'
import { DataTable } from './DataTable'
import { Quiet, Row } from './pieces'

/** What every chart is drawn with: the same axes, the same tooltip, the same inks. */
export const ink = 'var(--mui-palette-text-secondary)'
export const tick = { fill: ink, fontSize: chartText }
export const margin = { top: 14, right: 14, bottom: 22, left: 8 }
export const water = { deep: 'var(--mui-palette-water-deep)', live: 'var(--mui-palette-water-live)' }
export const grid = <CartesianGrid vertical={false} stroke="var(--mui-palette-divider)" />

/** The axis below, with its title and unit. */
export const xAxis = (title: string) => ({
  tick,
  stroke: ink,
  label: { value: title, position: 'insideBottom', offset: -14, ...tick } as const,
})

/** The axis to the left, with its title and unit; figures as they are written everywhere. */
export const yAxis = (title: string) => ({
  tick,
  stroke: ink,
  width: 58,
  tickFormatter: (value: number) => figure(value),
  label: {
    value: title,
    angle: -90,
    position: 'insideLeft',
    style: { textAnchor: 'middle', ...tick },
  } as const,
})

/** What is said where the pointer stands. */
export const tip = {
  isAnimationActive: false,
  contentStyle: {
    background: 'var(--mui-palette-background-paper)',
    border: '1px solid var(--mui-palette-divider)',
    color: 'inherit',
  },
}

interface Props {
  title: string
  note?: ReactNode
  /** the same as a table: a head and a row for each point */
  heads: readonly string[]
  rows: readonly (readonly string[])[]
  height?: number
  /** the drawing, which takes the room that there is */
  children: ReactElement
}

/** A chart with its table behind it. */
export function ChartFigure({ title, note, heads, rows, height = 230, children }: Props) {
  const [table, setTable] = useState(false)
  return (
    <Paper component="figure" variant="outlined" aria-label={title} sx={{ p: 1.5, m: 0, minWidth: 0 }}>
      <Row component="figcaption" sx={{ justifyContent: 'space-between', fontWeight: 700 }}>
        {title}
        <Button size="small" onClick={() => setTable(!table)} aria-pressed={table}>
          {table ? 'Chart' : 'Table'}
        </Button>
      </Row>
      {table ? (
        <DataTable
          label={title}
          rows={rows}
          most={height}
          columns={heads.map((head, n) => ({
            head,
            names: n === 0,
            figure: n > 0,
            cell: (row: readonly string[]) => row[n],
          }))}
        />
      ) : (
        <Box sx={{ height }}>
          <ResponsiveContainer>{children}</ResponsiveContainer>
        </Box>
      )}
      {note && !table && <Quiet>{note}</Quiet>}
    </Paper>
  )
}
