'use client'
import { Button, Pagination, PaginationItem, Snackbar, TextField } from '@mui/material'
import { FileUp, Plus, Search } from 'lucide-react'
import dynamic from 'next/dynamic'
import Link from 'next/link'
import { useRouter } from 'next/navigation'
import { useEffect, useRef, useState } from 'react'
import type { JobListRow } from '@/core/assess/record'
import { plural } from '@/core/units/format'
import { call, faultLine } from '../api'
import { FileButton } from '../common/FileButton'
import { Problem } from '../common/Problem'
import { Empty, Row, Screen } from '../common/pieces'
import { type PersonChoice, TopBar } from '../common/TopBar'
import { type ListAddress, listAddress } from './address'
import { JobsTable } from './JobsTable'

const TermsDialog = dynamic(() => import('../estimate/TermsDialog').then(m => m.TermsDialog))
const NewJobDialog = dynamic(() => import('./NewJobDialog').then(m => m.NewJobDialog))

interface Props {
  person: PersonChoice
  rows: JobListRow[]
  total: number
  /** there are more than were counted */
  more: boolean
  pageSize: number
  address: ListAddress
  order: string
}

export function JobsScreen({ person, rows, total, more, pageSize, address, order }: Props) {
  /** the template that a new job starts from; empty: none */
  const [adding, setAdding] = useState<string | null>(null)
  const [problems, setProblems] = useState<string[]>([])
  const [pricing, setPricing] = useState(false)
  const [told, setTold] = useState<string | null>(null)
  const pages = Math.max(1, Math.ceil(total / pageSize))
  return (
    <>
      <TopBar person={person} />
      <Screen
        title={address.archived || address.templates ? shelfOf(address) : 'Jobs'}
        tools={
          <Row>
            <SearchField address={address} />
            <Button component={Link} href="/due" prefetch={false}>
              What is due
            </Button>
            <ImportButton onProblems={setProblems} />
            <Button
              variant="contained"
              startIcon={<Plus size={18} aria-hidden />}
              onClick={() => setAdding('')}
            >
              New job
            </Button>
          </Row>
        }
      >
        {problems.length > 0 && (
          <Problem onClose={() => setProblems([])}>
            {problems.map(p => (
              <div key={p}>{p}</div>
            ))}
          </Problem>
        )}
        {rows.length ? (
          <JobsTable rows={rows} address={address} order={order} onTold={setTold} onStart={setAdding} />
        ) : (
          <Nothing address={address} onAdd={() => setAdding('')} />
        )}
        <Row sx={{ justifyContent: 'space-between' }}>
          <span>
            {more ? 'More than ' : ''}
            {plural(total, 'job')}
            {more && ': look for a word of the title or the place'}
          </span>
          {pages > 1 && (
            <Pagination
              count={pages}
              page={address.page}
              renderItem={item => (
                <PaginationItem
                  {...item}
                  component={Link}
                  href={listAddress(address, { page: item.page ?? 1 })}
                />
              )}
            />
          )}
          <Row>
            <Button onClick={() => setPricing(true)}>Rates, taxes, texts</Button>
            {shelves
              .filter(s => s.name !== shelfOf(address))
              .map(({ name, ...shelf }) => (
                <Button key={name} component={Link} href={listAddress(address, { ...shelf, page: 1 })}>
                  {name}
                </Button>
              ))}
          </Row>
        </Row>
      </Screen>
      {pricing && <TermsDialog onClose={() => setPricing(false)} />}
      {adding !== null && <NewJobDialog template={adding} onClose={() => setAdding(null)} />}
      <Snackbar open={told !== null} autoHideDuration={6000} onClose={() => setTold(null)} message={told} />
    </>
  )
}

const shelves = [
  { name: 'Jobs at hand', archived: false, templates: false },
  { name: 'Templates', archived: false, templates: true },
  { name: 'Archived jobs', archived: true, templates: false },
] as const

const shelfOf = ({ archived, templates }: ListAddress) =>
  archived ? 'Archived jobs' : templates ? 'Templates' : 'Jobs at hand'

const typingPauseMs = 250

function SearchField({ address }: { address: ListAddress }) {
  const router = useRouter()
  const [q, setQ] = useState(address.q)
  const asked = useRef(address.q)
  const ask = () => {
    if (q.trim() === asked.current) return
    asked.current = q.trim()
    router.replace(listAddress(address, { q: q.trim(), page: 1 }))
  }
  useEffect(() => {
    const timer = setTimeout(ask, typingPauseMs)
    return () => clearTimeout(timer)
  })
  return (
    <TextField
      sx={{ width: { xs: '100%', sm: 280 } }}
      label="Search by name or place"
      type="search"
      value={q}
      onChange={e => setQ(e.target.value)}
      // asked at once when left, so that a link clicked next is not overtaken by the search
      onBlur={ask}
      slotProps={{
        input: { startAdornment: <Search size={18} aria-hidden /> },
        htmlInput: { maxLength: 100 },
      }}
    />
  )
}

function ImportButton({ onProblems }: { onProblems: (problems: string[]) => void }) {
  const router = useRouter()
  const take = async (file: File) => {
    if (file.size > 2_000_000)
      return onProblems([
        `${file.name} is ${(file.size / 1e6).toFixed(0)} MB: a job document is never larger than 2 MB.`,
      ])
    const answer = await call<{ id: string }>('/api/jobs/import', 'POST', await file.text())
    if (answer.ok) return router.push(`/jobs/${answer.data.id}/panel`)
    onProblems([`${file.name}: ${answer.message}`, ...answer.faults.slice(0, 6).map(faultLine)])
  }
  return (
    <FileButton
      what="Job file"
      accept=".json,application/json"
      variant="outlined"
      startIcon={<FileUp size={18} aria-hidden />}
      onFiles={([file]) => take(file)}
    >
      Open a job file
    </FileButton>
  )
}

function Nothing({ address, onAdd }: { address: ListAddress; onAdd: () => void }) {
  return (
    <Empty>
      {address.q ? (
        <>
          <p>
            None of the {shelfOf(address).toLowerCase()} has “{address.q}” in its name or place.
          </p>
          <Link href={listAddress(address, { q: '', page: 1 })}>Show all</Link>
        </>
      ) : address.archived ? (
        <p>Nothing is archived.</p>
      ) : address.templates ? (
        <p>
          No templates yet. “Keep as a template”, beside a job in the list, keeps its source and hook-up for
          others to start from.
        </p>
      ) : (
        <>
          <p>No jobs yet. A job starts with a name and the size of its panel.</p>
          <Button variant="contained" onClick={onAdd}>
            New job
          </Button>
        </>
      )}
    </Empty>
  )
}
