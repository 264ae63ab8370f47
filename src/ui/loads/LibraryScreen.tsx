'use client'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { Plus } from 'lucide-react'
import dynamic from 'next/dynamic'
import { useState } from 'react'
import { findTypical, type Typical, typicalDayWh } from '@/core/loads/typical'
import { plural, quantity } from '@/core/units/format'
import { type PersonChoice, TopBar } from '../common/TopBar'
import screen from './Library.module.css'
import styles from './Loads.module.css'
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
      <main className={screen.screen}>
        <div className={styles.head}>
          <h1>Load library</h1>
          <p className={styles.lead}>
            {plural(entries.length, 'typical load')}
            {own.size > 0 && `, ${own.size} of ${person.firm}’s own`}. Estimates for planning: a plate or a
            meter replaces them on a job.
          </p>
        </div>
        <div className={styles.tools}>
          <TextField
            label="Find a load"
            size="small"
            value={asked}
            onChange={e => setAsked(e.target.value)}
            slotProps={{ htmlInput: { autoComplete: 'off' } }}
          />
          <Button startIcon={<Plus size={18} />} variant="outlined" onClick={() => setOpen('new')}>
            New typical load
          </Button>
          <span className={styles.quiet} role="status">
            {found.length} shown
          </span>
        </div>
        <section className={`${styles.card} ${styles.scroll}`} aria-label="Typical loads">
          {found.length ? (
            <table className={styles.table}>
              <thead>
                <tr>
                  <th scope="col">Load</th>
                  <th scope="col">Group</th>
                  <th scope="col" className={styles.num}>
                    Running
                  </th>
                  <th scope="col" className={styles.num}>
                    From, to
                  </th>
                  <th scope="col" className={styles.num}>
                    Start
                  </th>
                  <th scope="col" className={styles.num}>
                    Winter day
                  </th>
                  <th scope="col" className={styles.num}>
                    Summer day
                  </th>
                </tr>
              </thead>
              <tbody>
                {found.map(t => (
                  <tr key={t.id}>
                    <td>
                      <button type="button" className={styles.open} onClick={() => setOpen(t)}>
                        {t.name}
                      </button>
                      {own.has(t.id) && <span className={styles.quiet}> · the firm’s</span>}
                    </td>
                    <td>{t.group}</td>
                    <td className={styles.num}>
                      {quantity(t.runningW.likely, 'W')}
                      {t.volts === 240 && ' at 240 V'}
                    </td>
                    <td className={styles.num}>
                      {quantity(t.runningW.low, 'W')}, {quantity(t.runningW.high, 'W')}
                    </td>
                    <td className={styles.num}>{t.start ? `× ${t.start.likely}` : ''}</td>
                    <td className={styles.num}>{quantity(typicalDayWh(t, 'winter'), 'Wh')}</td>
                    <td className={styles.num}>{quantity(typicalDayWh(t, 'summer'), 'Wh')}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          ) : (
            <p className={styles.empty}>Nothing answers to “{asked}”. Another word, or a new typical load.</p>
          )}
        </section>
      </main>
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
