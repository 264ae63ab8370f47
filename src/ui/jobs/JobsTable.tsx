import { Menu, MenuItem, Link as MuiLink, Paper, Stack, TableSortLabel } from '@mui/material'
import { Ellipsis } from 'lucide-react'
import Link from 'next/link'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { JobListRow } from '@/core/assess/record'
import { quantity } from '@/core/units/format'
import { call } from '../api'
import { DataTable } from '../common/DataTable'
import { Level } from '../common/Level'
import { Quiet } from '../common/pieces'
import { SeverityTag } from '../common/SeverityTag'
import { Tool } from '../common/Tool'
import { type ListAddress, listAddress } from './address'

interface Props {
  rows: JobListRow[]
  address: ListAddress
  order: string
  onTold: (text: string) => void
  /** a new job is started from a template */
  onStart: (templateId: string) => void
}

/** The jobs, sorted by the server: each head leads to the list in its order. */
export function JobsTable({ rows, address, order, onTold, onStart }: Props) {
  const sorted = (sort: string, label: string, usual: 'asc' | 'desc' = 'asc') => {
    const now = address.sort === sort
    const direction: 'asc' | 'desc' = order === 'asc' ? 'asc' : 'desc'
    const next = now ? (order === 'asc' ? 'desc' : 'asc') : usual
    return {
      sorted: now && direction,
      head: (
        <TableSortLabel
          component={Link}
          href={listAddress(address, { sort, order: next, page: 1 })}
          active={now}
          direction={now ? direction : usual}
        >
          {label}
        </TableSortLabel>
      ),
    }
  }
  return (
    <Paper variant="outlined" sx={{ px: 1.5 }}>
      <DataTable
        label="Jobs"
        stacked
        rows={rows}
        idOf={row => row.id}
        rowProps={() => ({ hover: true })}
        columns={[
          {
            ...sorted('title', 'Job and place'),
            sx: { width: '30%' },
            cell: row => (
              <>
                <MuiLink
                  component={Link}
                  href={`/jobs/${row.id}/${row.step === 'ask' ? 'first' : 'panel'}`}
                  color="primary"
                  variant="h2"
                  sx={{ display: 'block' }}
                >
                  {row.title}
                </MuiLink>
                <Quiet component="span">{row.place || 'No place given'}</Quiet>
              </>
            ),
          },
          { ...sorted('step', 'Step'), cell: row => row.step },
          {
            ...sorted('worst', 'Worst finding'),
            sx: { width: '34%' },
            cell: row =>
              row.worst ? (
                <>
                  <SeverityTag severity={row.worst.severity} /> <span>{row.worst.sentence}</span>
                </>
              ) : (
                'Nothing found'
              ),
          },
          {
            ...sorted('hours', 'Hours had / needed'),
            cell: row => <Hours had={row.hoursHad} needed={row.hoursNeeded} />,
          },
          {
            ...sorted('updated', 'Changed', 'desc'),
            cell: row => (
              <time dateTime={row.updatedAt} suppressHydrationWarning>
                {new Date(row.updatedAt).toLocaleDateString('en-US', {
                  month: 'short',
                  day: 'numeric',
                  year: 'numeric',
                })}
              </time>
            ),
          },
          { head: '', cell: row => <RowMenu row={row} {...{ address, onTold, onStart }} /> },
        ]}
      />
    </Paper>
  )
}

function Hours({ had, needed }: { had: number | null; needed: number }) {
  return (
    <Stack spacing={0.5} sx={{ minWidth: 110 }}>
      <span>
        <b>{had === null ? '–' : quantity(had, 'h')}</b> / {quantity(needed, 'h')}
      </span>
      <Level full={(had ?? 0) / needed} />
    </Stack>
  )
}

function RowMenu({
  row,
  address: { archived, templates },
  onTold,
  onStart,
}: Pick<Props, 'address' | 'onTold' | 'onStart'> & { row: JobListRow }) {
  const router = useRouter()
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const act = async (path: string, body: unknown, done: string) => {
    setAnchor(null)
    const answer = await call(`/api/jobs/${row.id}/${path}`, 'POST', body)
    onTold(answer.ok ? done : answer.message)
    router.refresh()
  }
  return (
    <>
      <Tool
        label={`More for ${row.title}`}
        aria-haspopup="menu"
        onClick={e => setAnchor(e.currentTarget)}
        icon={Ellipsis}
      />
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        {templates ? (
          <MenuItem
            onClick={() => {
              setAnchor(null)
              onStart(row.id)
            }}
          >
            Start a job from it
          </MenuItem>
        ) : (
          <MenuItem onClick={() => act('template', {}, `The ways of ${row.title} are kept under Templates.`)}>
            Keep as a template
          </MenuItem>
        )}
        <MenuItem onClick={() => act('duplicate', {}, `Made a copy of ${row.title}.`)}>Duplicate</MenuItem>
        <MenuItem component="a" href={`/api/jobs/${row.id}/export`} onClick={() => setAnchor(null)}>
          Save as a file
        </MenuItem>
        <MenuItem
          onClick={() =>
            act(
              'archive',
              { archived: !archived },
              archived ? `${row.title} is back in the list.` : `${row.title} is in the archive.`,
            )
          }
        >
          {archived ? 'Bring back' : 'Archive'}
        </MenuItem>
        {archived && (
          <MenuItem
            onClick={() =>
              act(
                'delete',
                { deleted: true },
                `${row.title} is deleted. For thirty days an owner brings it back under Firm.`,
              )
            }
          >
            Delete
          </MenuItem>
        )}
      </Menu>
    </>
  )
}
