'use client'
import { Box, Button, Skeleton, TextField } from '@mui/material'
import { FileDown, FileUp, Plus } from 'lucide-react'
import dynamic from 'next/dynamic'
import { useDeferredValue, useEffect, useMemo, useState } from 'react'
import { type EquipmentKind, kindIds, kindName } from '@/core/equipment'
import { findEquipment } from '@/core/equipment/sheet'
import { may } from '@/core/firm/roles'
import { plural, sentenceStart } from '@/core/units/format'
import { FileButton } from '../common/FileButton'
import { Problem } from '../common/Problem'
import { Empty, Quiet, Row, Screen } from '../common/pieces'
import { type PersonChoice, TopBar } from '../common/TopBar'
import { Choice } from '../form/Choice'
import type { Opened } from './SheetDialog'
import { type Firm, useCatalogueChanges, useFirm, type Wrong } from './useEquipment'

const mostCompared = 4

const SheetDialog = dynamic(() => import('./SheetDialog').then(m => m.SheetDialog))
// a boundary of its own: the box that is pressed stands checked while this is fetched
const Compared = dynamic(() => import('./Compared').then(m => m.Compared), { loading: () => null })
const loadGrid = () => import('./CatalogueGrid').then(m => m.CatalogueGrid)

// asked for with this file: what is drawn first does not wait for it
if (typeof window !== 'undefined') void loadGrid()

/** The grid as soon as it is fetched. By a state: React holds the fallback of a lazy one for 300 ms. */
function useGrid() {
  const [grid, setGrid] = useState<{ Grid: Awaited<ReturnType<typeof loadGrid>> } | null>(null)
  useEffect(() => {
    void loadGrid().then(Grid => setGrid({ Grid }))
  }, [])
  return grid
}

/** The firm's catalogue: found by any word, compared side by side, entered as a datasheet gives it, in and out as files. */
export function EquipmentScreen({ person, firm: given }: { person: PersonChoice; firm: Firm }) {
  const { equipment: items, stock } = useFirm(given).data ?? given
  const { change, count } = useCatalogueChanges()
  const grid = useGrid()
  const mine = may(person.role, 'design')
  const [asked, setAsked] = useState('')
  const sought = useDeferredValue(asked)
  const [kind, setKind] = useState<EquipmentKind | 'all'>('all')
  const [chosen, setChosen] = useState<readonly string[]>([])
  const [open, setOpen] = useState<Opened | null>(null)
  const [trouble, setTrouble] = useState<Wrong | null>(null)
  const [said, setSaid] = useState('')
  const found = useMemo(
    () =>
      findEquipment(items, sought)
        .filter(i => kind === 'all' || i.kind === kind)
        .sort((a, b) => kindIds.indexOf(a.kind) - kindIds.indexOf(b.kind)),
    [items, sought, kind],
  )
  const compared = items.filter(i => chosen.includes(i.id))
  const read = async (picked: File) => {
    const format = picked.name.toLowerCase().endsWith('.json') ? 'json' : 'csv'
    if (picked.size > 1_000_000)
      return setTrouble({ message: 'The file is larger than 1 MB: that is not a catalogue.', faults: [] })
    const wrong = await change({ act: 'import', format, text: await picked.text() })
    setTrouble(wrong)
    setSaid(wrong ? '' : `${picked.name} is read.`)
  }
  return (
    <>
      <TopBar person={person} />
      <Screen
        title="Equipment"
        lead={`${plural(items.length, 'item')} of ${person.firm}. A job keeps the version that it was designed with.`}
      >
        <Row>
          <TextField
            label="Find equipment"
            value={asked}
            onChange={e => setAsked(e.target.value)}
            slotProps={{ htmlInput: { autoComplete: 'off' } }}
            sx={{ flex: '1 1 200px', maxWidth: 280 }}
          />
          <Box sx={{ flex: '0 0 180px' }}>
            <Choice
              label="Kind"
              value={kind}
              options={[
                { value: 'all' as const, label: 'all kinds' },
                ...kindIds.map(k => ({ value: k, label: sentenceStart(kindName[k]) })),
              ]}
              onChange={setKind}
            />
          </Box>
          {mine && (
            <>
              <Button
                variant="outlined"
                startIcon={<Plus size={18} aria-hidden />}
                onClick={() => setOpen({ kind: kind === 'all' ? 'station' : kind })}
              >
                New {kind === 'all' ? 'station' : kindName[kind]}
              </Button>
              <FileButton
                what="Catalogue file"
                accept=".csv,.json,text/csv,application/json"
                startIcon={<FileUp size={18} aria-hidden />}
                onFiles={([picked]) => read(picked)}
              >
                Read CSV or JSON
              </FileButton>
            </>
          )}
          <Button startIcon={<FileDown size={18} aria-hidden />} href="/api/equipment/export">
            CSV
          </Button>
          <Button startIcon={<FileDown size={18} aria-hidden />} href="/api/equipment/export?format=json">
            JSON
          </Button>
        </Row>
        <Quiet role="status">
          {found.length.toLocaleString('en-US')} shown
          {chosen.length > 0 && `, ${chosen.length} of ${mostCompared} to compare`}. {said}
        </Quiet>
        {trouble && (
          <Problem onClose={() => setTrouble(null)}>
            {trouble.message}
            {trouble.faults.length > 0 && (
              <Box component="ul" sx={{ maxHeight: 240, overflowY: 'auto' }}>
                {trouble.faults.map(f => (
                  <li key={f.path + f.message}>
                    <b>{f.path}</b> {f.message}
                  </li>
                ))}
              </Box>
            )}
          </Problem>
        )}
        {compared.length > 1 && <Compared items={compared} onClear={() => setChosen([])} />}
        {found.length > 0 && !grid && <Skeleton variant="rounded" height={480} />}
        {found.length ? (
          grid && (
            <grid.Grid
              items={found}
              stock={stock}
              chosen={chosen}
              onChosen={ids => setChosen(ids.slice(-mostCompared))}
              onOpen={item => setOpen({ item })}
              onCount={count}
            />
          )
        ) : (
          <Empty>
            {items.length === 0 ? (
              <>
                <h2>The firm has no equipment yet</h2>
                <p>
                  Read its list from CSV or JSON, or enter an item as its datasheet gives it: designs are made
                  of what stands here. To look around first, take over our example. Its makers and models are
                  made up: take it out of use before the first real job.
                </p>
                {mine && (
                  <Button
                    variant="contained"
                    sx={{ mt: 1 }}
                    onClick={async () => setTrouble(await change({ act: 'example' }))}
                  >
                    Take over the example
                  </Button>
                )}
              </>
            ) : (
              <>
                Nothing answers to “{asked}”. Another word, or a new{' '}
                {kind === 'all' ? 'item' : kindName[kind]}.
              </>
            )}
          </Empty>
        )}
      </Screen>
      {open && (
        <SheetDialog
          key={'item' in open ? open.item.id : open.kind}
          open={open}
          onSave={async (item, from) => {
            const wrong = await change({ act: 'put', item, from })
            return wrong && (wrong.faults.length ? wrong.faults : wrong.message)
          }}
          onRetire={async item => {
            const wrong = await change({ act: 'retire', id: item.id, from: item.version })
            setTrouble(wrong)
            setOpen(null)
          }}
          onKind={k => setOpen({ kind: k })}
          onClose={() => setOpen(null)}
        />
      )}
    </>
  )
}
