'use client'
import { Button, TextField } from '@mui/material'
import { Plus } from 'lucide-react'
import dynamic from 'next/dynamic'
import { useState } from 'react'
import { findTypical, type Typical, typicalDayWh } from '@/core/loads/typical'
import { plural, quantity } from '@/core/units/format'
import { DataTable } from '../common/DataTable'
import { Card, Empty, FigureLink, Quiet, Row, Screen } from '../common/pieces'
import { type PersonChoice, TopBar } from '../common/TopBar'
import { type FirmTypical, useLibrary } from './useLibrary'

const TypicalDialog = dynamic(() => import('./TypicalDialog').then(m => m.TypicalDialog))

/** The firm's load library: ours, with what the firm changed or added in its place. */
export function LibraryScreen({ person, firms: given }: { person: PersonChoice; firms: FirmTypical[] }) {
  const { entries, firms, setFirms } = useLibrary(given)
  const [asked, setAsked] = useState('')
  const [open, setOpen] = useState<Typical | 'new' | null>(null)
  const found = findTypical(
    entries.map(e => e.typical),
    asked,
  )
  const own = new Set(entries.filter(e => e.firms).map(e => e.typical.id))
  return (
    <>
      <TopBar person={person} />
      <Screen
        title="Load library"
        lead={
          <>
            {plural(entries.length, 'typical load')}
            {own.size > 0 && `, ${own.size} of ${person.firm}’s own`}. Estimates for planning: a plate or a
            meter replaces them on a job.
          </>
        }
      >
        <Row>
          <TextField
            label="Find a load"
            value={asked}
            onChange={e => setAsked(e.target.value)}
            slotProps={{ htmlInput: { autoComplete: 'off' } }}
            sx={{ width: 240 }}
          />
          <Button startIcon={<Plus size={18} />} variant="outlined" onClick={() => setOpen('new')}>
            New typical load
          </Button>
          <Quiet component="span" role="status">
            {found.length} shown
          </Quiet>
        </Row>
        <Card title="Typical loads">
          {found.length ? (
            <DataTable
              label="Typical loads"
              rows={found}
              idOf={t => t.id}
              columns={[
                {
                  head: 'Load',
                  cell: t => (
                    <>
                      <FigureLink onClick={() => setOpen(t)}>{t.name}</FigureLink>
                      {own.has(t.id) && ' · the firm’s'}
                    </>
                  ),
                },
                { head: 'Group', cell: t => t.group },
                {
                  head: 'Running',
                  figure: true,
                  cell: t => `${quantity(t.runningW.likely, 'W')}${t.volts === 240 ? ' at 240 V' : ''}`,
                },
                {
                  head: 'From, to',
                  figure: true,
                  cell: t => `${quantity(t.runningW.low, 'W')}, ${quantity(t.runningW.high, 'W')}`,
                },
                { head: 'Start', figure: true, cell: t => (t.start ? `× ${t.start.likely}` : '') },
                { head: 'Winter day', figure: true, cell: t => quantity(typicalDayWh(t, 'winter'), 'Wh') },
                { head: 'Summer day', figure: true, cell: t => quantity(typicalDayWh(t, 'summer'), 'Wh') },
              ]}
            />
          ) : (
            <Empty>Nothing answers to “{asked}”. Another word, or a new typical load.</Empty>
          )}
        </Card>
      </Screen>
      {open && (
        <TypicalDialog
          typical={open === 'new' ? null : open}
          version={open === 'new' ? 0 : (firms.find(f => f.typical.id === open.id)?.version ?? 0)}
          onChanged={loads => {
            setFirms(loads)
            setOpen(null)
          }}
          onClose={() => setOpen(null)}
        />
      )}
    </>
  )
}
