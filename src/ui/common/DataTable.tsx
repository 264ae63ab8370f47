import {
  Table,
  TableBody,
  TableCell,
  TableContainer,
  TableHead,
  TableRow,
  type TableRowProps,
} from '@mui/material'
import type { Theme } from '@mui/material/styles'
import type { SystemStyleObject } from '@mui/system'
import type { ReactNode } from 'react'
import { widths } from '../theme/tokens'

export interface Column<R> {
  head: ReactNode
  cell: (row: R, at: number) => ReactNode
  /** figures stand to the right */
  figure?: boolean
  /** names the row */
  names?: boolean
  /** the way it is sorted by, where the head sorts */
  sorted?: 'asc' | 'desc' | false
  sx?: SystemStyleObject<Theme>
}

interface Props<R> {
  /** what the table is, for who does not see what stands around it */
  label: string
  rows: readonly R[]
  columns: readonly (Column<R> | null | false)[]
  idOf?: (row: R, at: number) => string
  rowProps?: (row: R, at: number) => TableRowProps & Record<`data-${string}`, unknown>
  /** said under the columns */
  foot?: ReactNode
  /** px, above which it scrolls under its heads */
  most?: number
  /** on a phone each row is a block of its own instead of a line that is too wide; `labelled`: each cell under its head */
  stacked?: boolean | 'labelled'
  sx?: SystemStyleObject<Theme>
}

const blocks: SystemStyleObject<Theme> = {
  [`@media (max-width: ${widths.phone}px)`]: {
    '& thead': { display: 'none' },
    '& tr': { display: 'block', position: 'relative', py: 1, borderBottom: 1, borderColor: 'divider' },
    '& td, & th': { display: 'block', width: 'auto', border: 0, py: 0.25 },
    '& td:last-of-type': { position: 'absolute', top: 4, right: 0 },
  },
}
const labelled: SystemStyleObject<Theme> = {
  [`@media (max-width: ${widths.phone}px)`]: {
    '& td[data-head]:not(:last-of-type, :empty)': {
      display: 'flex',
      // figures, which stand to the right, are turned round by MUI
      flexDirection: 'row',
      gap: 1,
      justifyContent: 'space-between',
      '&::before': { content: 'attr(data-head)', color: 'text.secondary' },
    },
    '& td:empty': { display: 'none' },
    // what the row is comes first, wherever its column stands
    '& tbody tr': { display: 'flex', flexDirection: 'column' },
    '& tbody th': { order: -1 },
  },
}

/** Rows of like things: heads, figures to the right, on a narrow screen within its own scroll. */
export function DataTable<R>({ label, rows, columns, idOf, rowProps, foot, most, stacked, sx }: Props<R>) {
  const shown = columns.filter(c => c !== null && c !== false)
  return (
    <TableContainer
      tabIndex={most ? 0 : undefined}
      sx={{ maxHeight: most, '@media print': { overflow: 'visible' } }}
    >
      <Table
        aria-label={label}
        stickyHeader={most !== undefined}
        sx={[stacked ? blocks : {}, stacked === 'labelled' ? labelled : {}, sx ?? {}]}
      >
        {shown.some(c => c.head) && (
          <TableHead>
            <TableRow>
              {shown.map((c, at) => (
                <TableCell
                  // biome-ignore lint/suspicious/noArrayIndexKey: columns have no other name and do not move
                  key={at}
                  scope="col"
                  align={c.figure ? 'right' : 'left'}
                  sortDirection={c.sorted}
                  sx={c.sx}
                >
                  {c.head || <span className="visually-hidden"> To do</span>}
                </TableCell>
              ))}
            </TableRow>
          </TableHead>
        )}
        <TableBody>
          {rows.map((row, n) => (
            <TableRow key={idOf?.(row, n) ?? n} {...rowProps?.(row, n)}>
              {shown.map((c, at) => (
                <TableCell
                  // biome-ignore lint/suspicious/noArrayIndexKey: as above
                  key={at}
                  {...(c.names && { component: 'th', scope: 'row' })}
                  align={c.figure ? 'right' : 'left'}
                  data-head={typeof c.head === 'string' && c.head ? c.head : undefined}
                  sx={{
                    ...(c.names && { fontWeight: 650 }),
                    ...(c.figure && { whiteSpace: 'nowrap' }),
                    ...c.sx,
                  }}
                >
                  {c.cell(row, n)}
                </TableCell>
              ))}
            </TableRow>
          ))}
          {foot}
        </TableBody>
      </Table>
    </TableContainer>
  )
}
