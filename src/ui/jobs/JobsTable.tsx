'use client'
import IconButton from '@mui/material/IconButton'
import Menu from '@mui/material/Menu'
import MenuItem from '@mui/material/MenuItem'
import { ArrowDown, ArrowUp, Ellipsis } from 'lucide-react'
import Link from 'next/link'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { JobListRow } from '@/core/job/record'
import { quantity } from '@/core/units/format'
import { call } from '../api'
import { SeverityTag } from '../common/SeverityTag'
import { type ListAddress, listAddress } from './address'
import styles from './JobsTable.module.css'

const columns = [
  { sort: 'title', label: 'Job and place', usual: 'asc' },
  { sort: 'step', label: 'Step', usual: 'asc' },
  { sort: 'worst', label: 'Worst finding', usual: 'asc' },
  { sort: 'hours', label: 'Hours had / needed', usual: 'asc' },
  { sort: 'updated', label: 'Changed', usual: 'desc' },
]

interface Props {
  rows: JobListRow[]
  address: ListAddress
  order: string
  onTold: (text: string) => void
}

export function JobsTable({ rows, address, order, onTold }: Props) {
  return (
    <table className={styles.table}>
      <thead>
        <tr>
          {columns.map(({ sort, label, usual }) => {
            const now = address.sort === sort
            const next = now ? (order === 'asc' ? 'desc' : 'asc') : usual
            return (
              <th
                key={sort}
                aria-sort={now ? (order === 'asc' ? 'ascending' : 'descending') : 'none'}
                scope="col"
              >
                <Link href={listAddress(address, { sort, order: next, page: 1 })}>
                  {label}
                  {now &&
                    (order === 'asc' ? (
                      <ArrowUp size={15} aria-hidden />
                    ) : (
                      <ArrowDown size={15} aria-hidden />
                    ))}
                </Link>
              </th>
            )
          })}
          <th scope="col">
            <span className="visually-hidden">Actions</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {rows.map(row => (
          <tr key={row.id}>
            <td className={styles.name}>
              <Link href={`/jobs/${row.id}/panel`}>{row.title}</Link>
              <span>{row.place || 'No place given'}</span>
            </td>
            <td data-label="Step">{row.step}</td>
            <td className={styles.finding}>
              {row.worst ? (
                <>
                  <SeverityTag severity={row.worst.severity} /> <span>{row.worst.sentence}</span>
                </>
              ) : (
                'Nothing found'
              )}
            </td>
            <td data-label="Hours">
              <Hours had={row.hoursHad} needed={row.hoursNeeded} />
            </td>
            <td data-label="Changed">
              <time dateTime={row.updatedAt} suppressHydrationWarning>
                {new Date(row.updatedAt).toLocaleDateString('en-US', {
                  month: 'short',
                  day: 'numeric',
                  year: 'numeric',
                })}
              </time>
            </td>
            <td>
              <RowMenu row={row} archived={address.archived} onTold={onTold} />
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

function Hours({ had, needed }: { had: number | null; needed: number }) {
  const share = had === null ? 0 : Math.min(1, had / needed)
  return (
    <span className={styles.hours}>
      <span>
        <b>{had === null ? '–' : quantity(had, 'h')}</b> / {quantity(needed, 'h')}
      </span>
      <span className={styles.level} aria-hidden="true">
        <span style={{ width: `${share * 100}%` }} />
      </span>
    </span>
  )
}

function RowMenu({
  row,
  archived,
  onTold,
}: {
  row: JobListRow
  archived: boolean
  onTold: (text: string) => void
}) {
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
      <IconButton
        aria-label={`More for ${row.title}`}
        aria-haspopup="menu"
        onClick={e => setAnchor(e.currentTarget)}
      >
        <Ellipsis size={20} aria-hidden />
      </IconButton>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
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
      </Menu>
    </>
  )
}
