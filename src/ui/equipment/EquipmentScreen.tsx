'use client'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import TextField from '@mui/material/TextField'
import { FileDown, FileUp, Plus } from 'lucide-react'
import { useState } from 'react'
import { type Equipment, type EquipmentKind, equipmentKinds, kindIds, kindName } from '@/core/equipment'
import { equipmentFields, findEquipment, headlineOf } from '@/core/equipment/sheet'
import type { Fault } from '@/core/outcome'
import { expansionKey, type Stock } from '@/core/search/stock'
import { plural, quantity, sentenceStart } from '@/core/units/format'
import { Choice } from '../common/Choice'
import { FactsDialog } from '../common/FactsDialog'
import { FileButton } from '../common/FileButton'
import { type PersonChoice, TopBar } from '../common/TopBar'
import { Compared } from './Compared'
import styles from './Equipment.module.css'
import { StockField } from './StockField'
import { useEquipment } from './useEquipment'

const mostCompared = 4
type Open = { item: Equipment } | { kind: EquipmentKind } | null

/** The firm's catalogue: found by any word, compared side by side, entered as a datasheet gives it, in and out as files. */
export function EquipmentScreen({
  person,
  equipment,
  stock: counted,
}: {
  person: PersonChoice
  equipment: Equipment[]
  stock: Stock
}) {
  const { items, stock, change } = useEquipment(equipment, counted)
  const [asked, setAsked] = useState('')
  const [kind, setKind] = useState<EquipmentKind | 'all'>('all')
  const [chosen, setChosen] = useState<string[]>([])
  const [open, setOpen] = useState<Open>(null)
  const [trouble, setTrouble] = useState<{ message: string; faults: Fault[] } | null>(null)
  const [said, setSaid] = useState('')
  const found = findEquipment(items, asked).filter(i => kind === 'all' || i.kind === kind)
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
      <main className={styles.screen}>
        <div className={styles.head}>
          <h1>Equipment</h1>
          <p>
            {plural(items.length, 'item')} of {person.firm}. A job keeps the version that it was designed
            with.
          </p>
        </div>
        <div className={styles.tools}>
          <TextField
            label="Find equipment"
            value={asked}
            onChange={e => setAsked(e.target.value)}
            slotProps={{ htmlInput: { autoComplete: 'off' } }}
            className={styles.find}
          />
          <div className={styles.kind}>
            <Choice
              label="Kind"
              value={kind}
              options={[
                { value: 'all' as const, label: 'all kinds' },
                ...kindIds.map(k => ({ value: k, label: sentenceStart(kindName[k]) })),
              ]}
              onChange={setKind}
            />
          </div>
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
          <Button startIcon={<FileDown size={18} aria-hidden />} href="/api/equipment/export">
            CSV
          </Button>
          <Button startIcon={<FileDown size={18} aria-hidden />} href="/api/equipment/export?format=json">
            JSON
          </Button>
        </div>
        <p role="status" className={styles.quiet}>
          {found.length} shown{chosen.length > 0 && `, ${chosen.length} of ${mostCompared} to compare`}.{' '}
          {said}
        </p>
        {trouble && (
          <div role="alert" className={styles.trouble}>
            <p>{trouble.message}</p>
            {trouble.faults.length > 0 && (
              <ul>
                {trouble.faults.map(f => (
                  <li key={f.path + f.message}>
                    <b>{f.path}</b> {f.message}
                  </li>
                ))}
              </ul>
            )}
            <Button size="small" onClick={() => setTrouble(null)}>
              Close
            </Button>
          </div>
        )}
        {compared.length > 1 && <Compared items={compared} onClear={() => setChosen([])} />}
        {kindIds
          .filter(k => found.some(i => i.kind === k))
          .map(k => (
            <section key={k} className={styles.card} aria-label={kindName[k]}>
              <h2>{sentenceStart(kindName[k])}</h2>
              <table className={styles.table}>
                <tbody>
                  {found
                    .filter(i => i.kind === k)
                    .map(item => (
                      <tr key={item.id}>
                        <td className={styles.pick}>
                          <Checkbox
                            checked={chosen.includes(item.id)}
                            onChange={e =>
                              setChosen(was =>
                                e.target.checked
                                  ? [...was, item.id].slice(-mostCompared)
                                  : was.filter(id => id !== item.id),
                              )
                            }
                            slotProps={{ input: { 'aria-label': `Compare ${item.name}` } }}
                          />
                        </td>
                        <th scope="row">
                          <button type="button" className={styles.open} onClick={() => setOpen({ item })}>
                            {item.name}
                          </button>
                        </th>
                        <td>{headlineOf(item)}</td>
                        <td className={styles.num}>
                          {item.weightLb === undefined ? '' : quantity(item.weightLb, 'lb')}
                        </td>
                        <td className={styles.num}>
                          {item.price === undefined ? '' : quantity(item.price, '$')}
                        </td>
                        <td className={styles.stock}>
                          <StockField
                            name={item.name}
                            count={stock[item.id]}
                            onCount={count => change({ act: 'stock', key: item.id, count })}
                          />
                          {item.kind === 'station' && item.expansion && (
                            <StockField
                              name={`expansion units of ${item.name}`}
                              label="expansions"
                              count={stock[expansionKey(item.id)]}
                              onCount={count => change({ act: 'stock', key: expansionKey(item.id), count })}
                            />
                          )}
                        </td>
                        <td className={styles.version}>version {item.version}</td>
                      </tr>
                    ))}
                </tbody>
              </table>
            </section>
          ))}
        {!found.length && (
          <p className={styles.empty}>
            Nothing answers to “{asked}”. Another word, or a new {kind === 'all' ? 'item' : kindName[kind]}.
          </p>
        )}
      </main>
      {open && (
        <SheetDialog
          key={'item' in open ? open.item.id : open.kind}
          open={open}
          onSave={async (item, from) => {
            const wrong = await change({ act: 'put', item, from })
            return wrong ? wrong.message : null
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

const idOf = (name: string) =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 40)

function SheetDialog({
  open,
  onSave,
  onRetire,
  onKind,
  onClose,
}: {
  open: NonNullable<Open>
  onSave: (item: Equipment, from: number) => Promise<string | null>
  onRetire: (item: Equipment) => void
  onKind: (kind: EquipmentKind) => void
  onClose: () => void
}) {
  const was = 'item' in open ? open.item : null
  const kind = 'item' in open ? open.item.kind : open.kind
  const fields = equipmentFields(kind).filter(f => !was || f.key !== 'id')
  return (
    <FactsDialog<Equipment>
      title={was ? `${was.name}, version ${was.version}` : `New ${kindName[kind]}`}
      schema={equipmentKinds[kind]}
      fields={fields}
      draft={was ? { ...was } : { kind, version: 1 }}
      save={was ? `Keep as version ${was.version + 1}` : 'Add to the catalogue'}
      onSave={item => onSave({ ...item, id: was?.id ?? idOf(item.id) }, was?.version ?? 0)}
      onClose={onClose}
      extra={
        was && (
          <Button color="error" onClick={() => onRetire(was)}>
            Take out of use
          </Button>
        )
      }
    >
      {was ? (
        <p className={styles.quiet}>
          Jobs that were designed with version {was.version} keep it; each can take the new one over.
        </p>
      ) : (
        <Choice
          label="Kind"
          value={kind}
          options={kindIds.map(k => ({ value: k, label: sentenceStart(kindName[k]) }))}
          onChange={onKind}
        />
      )}
    </FactsDialog>
  )
}
