import { Checkbox, Link } from '@mui/material'
import { DataGrid, type GridColDef } from '@mui/x-data-grid'
import { createContext, useContext, useMemo } from 'react'
import { type Equipment, kindName } from '@/core/equipment'
import { headlineOf } from '@/core/equipment/sheet'
import { expansionKey, type Stock } from '@/core/search/stock'
import { quantity, sentenceStart } from '@/core/units/format'
import { StockField } from './StockField'
import type { Wrong } from './useEquipment'

interface Props {
  items: readonly Equipment[]
  stock: Stock
  chosen: readonly string[]
  onChosen: (ids: string[]) => void
  onOpen: (item: Equipment) => void
  onCount: (key: string, count: number | null) => Promise<Wrong | null>
}

/** What is compared. Boxes read it themselves: columns that change are taken up by the grid a moment later. */
const Comparing = createContext<Pick<Props, 'chosen' | 'onChosen'>>({ chosen: [], onChosen: () => {} })

function CompareBox({ item: { id, name } }: { item: Equipment }) {
  const { chosen, onChosen } = useContext(Comparing)
  return (
    <Checkbox
      checked={chosen.includes(id)}
      onChange={e => onChosen(e.target.checked ? [...chosen, id] : chosen.filter(c => c !== id))}
      disableRipple
      slotProps={{ input: { 'aria-label': `Compare ${name}` } }}
    />
  )
}

/** The catalogue as a grid: sorted, filtered, paged, its columns chosen, its stock counted in place. */
export function CatalogueGrid({ items, stock, chosen, onChosen, onOpen, onCount }: Props) {
  const columns = useMemo<GridColDef<Equipment>[]>(
    () => [
      {
        field: 'compare',
        headerName: 'Compare',
        width: 84,
        sortable: false,
        filterable: false,
        renderCell: ({ row }) => <CompareBox item={row} />,
      },
      {
        field: 'name',
        headerName: 'Name',
        width: 180,
        renderCell: ({ row }) => (
          <Link
            component="button"
            color="primary"
            onClick={() => onOpen(row)}
            sx={{ font: 'inherit', fontWeight: 650 }}
          >
            {row.name}
          </Link>
        ),
      },
      {
        field: 'kind',
        headerName: 'Kind',
        width: 115,
        valueGetter: (_, row) => sentenceStart(kindName[row.kind]),
      },
      {
        field: 'headline',
        headerName: 'What it is',
        flex: 1,
        minWidth: 240,
        valueGetter: (_, row) => headlineOf(row),
        renderCell: ({ value }) => (
          <span title={value} data-lines>
            {value}
          </span>
        ),
      },
      {
        field: 'weightLb',
        headerName: 'Weight',
        type: 'number',
        width: 95,
        valueFormatter: (value?: number) => (value === undefined ? '' : quantity(value, 'lb')),
      },
      {
        field: 'price',
        headerName: 'Price',
        type: 'number',
        width: 95,
        valueFormatter: (value?: number) => (value === undefined ? '' : quantity(value, '$')),
      },
      {
        field: 'stock',
        headerName: 'In stock',
        type: 'number',
        width: 105,
        valueGetter: (_, row) => stock[row.id],
        renderCell: ({ row }) => (
          <StockField name={row.name} count={stock[row.id]} onCount={count => onCount(row.id, count)} />
        ),
      },
      {
        field: 'expansions',
        headerName: 'Expansions',
        type: 'number',
        width: 115,
        valueGetter: (_, row) => stock[expansionKey(row.id)],
        renderCell: ({ row }) =>
          row.kind === 'station' &&
          row.expansion && (
            <StockField
              name={`expansion units of ${row.name}`}
              count={stock[expansionKey(row.id)]}
              onCount={count => onCount(expansionKey(row.id), count)}
            />
          ),
      },
      { field: 'version', headerName: 'Version', type: 'number', width: 85 },
    ],
    [stock, onOpen, onCount],
  )
  const comparing = useMemo(() => ({ chosen, onChosen }), [chosen, onChosen])
  return (
    <Comparing value={comparing}>
      <DataGrid
        aria-label="Catalogue"
        rows={items}
        columns={columns}
        rowHeight={60}
        disableRowSelectionOnClick
        initialState={{ pagination: { paginationModel: { pageSize: 20 } } }}
        pageSizeOptions={[20, 50, 100]}
        sx={{
          '--DataGrid-rowBorderColor': 'var(--mui-palette-divider)',
          '& .MuiDataGrid-cell': { alignContent: 'center', lineHeight: 1.4, whiteSpace: 'normal' },
          '& [data-lines]': {
            display: '-webkit-box',
            overflow: 'hidden',
            WebkitBoxOrient: 'vertical',
            WebkitLineClamp: 2,
          },
          bgcolor: 'background.paper',
        }}
      />
    </Comparing>
  )
}
