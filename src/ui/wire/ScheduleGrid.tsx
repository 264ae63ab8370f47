import { Box, MenuItem, Select } from '@mui/material'
import { DataGrid, type GridColDef } from '@mui/x-data-grid'
import { useMemo } from 'react'
import { figure, plural } from '@/core/units/format'
import { type ConductorSize, conductorSizes } from '@/core/units/tables/conductors'
import type { WiringPlan } from '@/core/work/wiring/parts'
import { type ScheduleRow, scheduleOf } from '@/core/work/wiring/schedule'
import { sizeWorking } from '@/core/work/wiring/sizes'
import { DataTable } from '../common/DataTable'
import { Card, FigureLink, Quiet } from '../common/pieces'
import { Choice } from '../form/Choice'
import { useWorkspace } from '../workspace/store'

interface Props {
  plan: WiringPlan
  circuitId: string
  route: string
  onRoute: (route: string) => void
}

/** Every conductor, a line each: filtered by its way or by the circuit that is lit. */
export function ScheduleGrid({ plan, circuitId, route, onRoute }: Props) {
  const act = useWorkspace(s => s.act)
  const showWorking = useWorkspace(s => s.showWorking)
  const edition = useWorkspace(s => s.job.edition)
  const chosen = useWorkspace(s => s.job.wiring?.wires)
  const byId = useMemo(() => new Map(plan.conductors.map(c => [c.id, c])), [plan])
  const rows = useMemo(
    () =>
      scheduleOf(plan).filter(r => {
        const c = byId.get(r.id)
        return (!route || c?.route === route) && (!circuitId || c?.circuitId === circuitId)
      }),
    [plan, byId, route, circuitId],
  )
  const columns = useMemo<GridColDef<ScheduleRow>[]>(
    () => [
      { field: 'mark', headerName: 'Mark', width: 118 },
      { field: 'function', headerName: 'What', width: 76 },
      { field: 'from', headerName: 'From', flex: 1, minWidth: 138 },
      { field: 'to', headerName: 'To', flex: 1, minWidth: 138 },
      {
        field: 'sizeAwg',
        headerName: 'AWG',
        width: 74,
        renderCell: ({ row }) => {
          const c = byId.get(row.id)
          if (c?.comes !== 'bought' || !c.size) return row.sizeAwg
          const own = chosen?.some(w => w.route === c.route && w.mark === c.mark)
          return (
            <Select
              variant="standard"
              value={own ? c.size : ''}
              displayEmpty
              renderValue={() => (own ? `${c.size} (by hand)` : c.size)}
              inputProps={{ 'aria-label': `Size of ${c.mark}` }}
              onChange={({ target }) =>
                target.value
                  ? act({
                      op: 'chooseWire',
                      wire: { route: c.route, mark: c.mark, size: target.value as ConductorSize },
                    })
                  : act({ op: 'proposeWire', route: c.route, mark: c.mark })
              }
            >
              <MenuItem value="">as proposed</MenuItem>
              {conductorSizes.map(size => (
                <MenuItem key={size} value={size}>
                  {size}
                </MenuItem>
              ))}
            </Select>
          )
        },
      },
      {
        field: 'why',
        headerName: 'Why',
        width: 62,
        sortable: false,
        renderCell: ({ row }) => {
          const c = byId.get(row.id)
          const working = c && sizeWorking(c, edition)
          return (
            working && (
              <FigureLink
                label={`Why ${row.mark} is ${row.sizeAwg} AWG`}
                onClick={() => showWorking(working)}
              >
                {c.breakerA} A
              </FigureLink>
            )
          )
        },
      },
      {
        field: 'colour',
        headerName: 'Colour',
        width: 96,
        valueGetter: (_, row) => `${row.colour}${row.metal === 'aluminum' ? ', aluminum' : ''}`,
      },
      {
        field: 'cutFt',
        headerName: 'Cut',
        type: 'number',
        width: 76,
        valueFormatter: (value: number) => (value ? `${figure(value)} ft` : ''),
      },
      {
        field: 'strip',
        headerName: 'Bare ends',
        width: 96,
        sortable: false,
        valueGetter: (_, row) => `${row.stripFromIn} / ${row.stripToIn} in`,
      },
      { field: 'route', headerName: 'Through', width: 170 },
      { field: 'comes', headerName: 'Comes', width: 118 },
    ],
    [byId, chosen, act, showWorking, edition],
  )
  return (
    <Card
      title="Schedule"
      tools={
        <>
          <Quiet component="span">{plural(rows.length, 'conductor')}</Quiet>
          <Box sx={{ width: 260 }}>
            <Choice
              label="Way"
              value={route}
              options={[
                { value: '', label: 'all of them' },
                ...plan.routes.map(r => ({ value: r.id, label: r.name })),
              ]}
              onChange={onRoute}
            />
          </Box>
        </>
      }
    >
      <Box sx={{ display: 'none', '@media print': { display: 'block' } }}>
        <DataTable
          label="Schedule on paper"
          rows={rows}
          idOf={r => r.id}
          columns={[
            { head: 'Mark', names: true, cell: r => r.mark },
            { head: 'What', cell: r => r.function },
            { head: 'From', cell: r => r.from },
            { head: 'To', cell: r => r.to },
            { head: 'AWG', cell: r => r.sizeAwg },
            { head: 'Colour', cell: r => `${r.colour}${r.metal === 'aluminum' ? ', aluminum' : ''}` },
            { head: 'Cut', figure: true, cell: r => (r.cutFt ? `${figure(r.cutFt)} ft` : '') },
            { head: 'Through', cell: r => r.route },
          ]}
        />
      </Box>
      <DataGrid
        className="no-print"
        aria-label="Schedule of conductors"
        rows={rows}
        columns={columns}
        density="compact"
        disableRowSelectionOnClick
        getRowHeight={() => 'auto'}
        initialState={{ pagination: { paginationModel: { pageSize: 25 } } }}
        pageSizeOptions={[25, 50, 100]}
        sx={{
          '--DataGrid-rowBorderColor': 'var(--mui-palette-divider)',
          '& .MuiDataGrid-cell': { alignContent: 'center', lineHeight: 1.35, whiteSpace: 'normal', py: 0.5 },
          bgcolor: 'background.paper',
        }}
      />
    </Card>
  )
}
