'use client'
import { Button } from '@mui/material'
import { Download } from 'lucide-react'
import Link from 'next/link'
import { DataTable } from '../common/DataTable'
import { Quiet, Row, Screen } from '../common/pieces'
import { type PersonChoice, TopBar } from '../common/TopBar'
import { browserName, momentIn } from './words'

interface Entry {
  id: string
  at: string
  who: string
  /** in words */
  what: string
  about: string
  address: string | null
  browser: string | null
}

interface Props {
  person: PersonChoice
  entries: Entry[]
  /** the address of the entries before these */
  older: string | null
  first: boolean
}

/** Who did what, when and from where: only ever added to. */
export function RecordScreen({ person, entries, older, first }: Props) {
  return (
    <>
      <TopBar person={person} />
      <Screen
        title="Record"
        lead="Who did what, when and from where. It is only added to: nobody changes it."
        tools={
          <Button component="a" href="/api/record" startIcon={<Download size={16} aria-hidden />}>
            All of it as CSV
          </Button>
        }
      >
        {!entries.length && <Quiet>Nothing is written down yet.</Quiet>}
        <DataTable
          label="Record"
          rows={entries}
          idOf={e => e.id}
          stacked="labelled"
          columns={[
            { head: 'When', cell: e => momentIn(person.zone, e.at), sx: { whiteSpace: 'nowrap' } },
            { head: 'Who', names: true, cell: e => e.who },
            { head: 'What', cell: e => [e.what, e.about].filter(Boolean).join(' ') },
            {
              head: 'From',
              cell: e => [e.address, e.browser && browserName(e.browser)].filter(Boolean).join(', '),
            },
            { head: '', cell: () => null },
          ]}
        />
        <Row>
          {!first && <Link href="/record">The newest</Link>}
          {older && <Link href={older}>Older entries</Link>}
        </Row>
      </Screen>
    </>
  )
}
