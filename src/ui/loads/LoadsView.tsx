'use client'
import Button from '@mui/material/Button'
import { Plus } from 'lucide-react'
import dynamic from 'next/dynamic'
import Link from 'next/link'
import { useEffect, useMemo, useState } from 'react'
import type { BySchool, Learn, TierNeed } from '@/core/job/learn'
import { withoutText } from '@/core/job/learn'
import { type LoadRow, loadsOverview } from '@/core/job/loads-overview'
import type { School } from '@/core/loads/evidence'
import { figure, plural, quantity } from '@/core/units/format'
import { FindingsHere } from '../findings/FindingsHere'
import { useWorkspace } from '../workspace/store'
import { From } from './From'
import styles from './Loads.module.css'
import { LoadsTabs } from './LoadsTabs'

const LoadSheet = dynamic(() => import('./LoadSheet').then(m => m.LoadSheet))
const LibraryPicker = dynamic(() => import('./LibraryPicker').then(m => m.LibraryPicker))

/** What each circuit draws, how that is known, what it needs by each school, and what to measure next. */
export function LoadsView() {
  const job = useWorkspace(s => s.job)
  const id = useWorkspace(s => s.id)
  const view = useMemo(() => loadsOverview(job), [job])
  const [open, setOpen] = useState<string | null>(null)
  const [adding, setAdding] = useState(false)
  // a finding points at a load by the address
  useEffect(() => {
    const look = () => {
      const loadId = decodeURIComponent(window.location.hash.slice(1))
      if (loadId) setOpen(loadId)
    }
    look()
    window.addEventListener('hashchange', look)
    return () => window.removeEventListener('hashchange', look)
  }, [])
  const close = () => {
    setOpen(null)
    if (window.location.hash) window.history.replaceState(null, '', window.location.pathname)
  }
  const row = view.rows.find(r => r.load.id === open)
  const counted = view.rows.filter(r => r.counts)
  return (
    <div className={styles.view}>
      <div className={styles.head}>
        <h1>Loads</h1>
        <p className={styles.lead}>
          {counted.length
            ? `${plural(counted.length, 'load')} on picked circuits: ${quantity(view.dailyWh, 'Wh')} a day`
            : 'No load on a picked circuit yet'}
          {view.conditions ? `, ${view.conditions}. ` : '. '}
          <Link href={`/jobs/${id}/outage`}>{view.conditions ? 'Change' : 'Say season and weather'}</Link>
        </p>
        <LoadsTabs />
      </div>
      {view.explained && <p className={styles.told}>{view.explained.sentence}</p>}
      {counted.length > 0 && (
        <>
          <Schools schools={view.schools} />
          <div className={styles.columns}>
            <Next learn={view.learn} onOpen={setOpen} />
            <Tiers tiers={view.tiers} />
          </div>
        </>
      )}
      <section className={styles.card} aria-label="Loads by circuit">
        <div className={styles.tools}>
          <h2>By circuit</h2>
          <Button size="small" startIcon={<Plus size={18} />} onClick={() => setAdding(true)}>
            Add a load
          </Button>
        </div>
        <LoadTable rows={view.rows} onOpen={setOpen} />
      </section>
      <FindingsHere view="loads" />
      {row && <LoadSheet key={row.load.id} row={row} onClose={close} />}
      {adding && (
        <LibraryPicker
          onClose={() => setAdding(false)}
          onAdded={loadId => {
            setAdding(false)
            setOpen(loadId)
          }}
        />
      )}
    </div>
  )
}

const schoolNames: Record<School, { name: string; help: string }> = {
  nameplate: { name: 'Nameplate', help: 'what the plates say, and the habit' },
  metered: { name: 'Metered', help: 'what the meters say' },
  blended: { name: 'In force', help: 'the best source of each figure, or the one chosen' },
}

/** The three schools side by side, with the loads that make the difference. */
function Schools({ schools }: { schools: BySchool[] }) {
  const rows: { label: string; of: (s: BySchool) => string }[] = [
    { label: 'Average over the outage', of: s => quantity(s.meanW, 'W') },
    { label: 'A day', of: s => quantity(s.dailyWh, 'Wh') },
    { label: 'Running together', of: s => `${quantity(s.W, 'W')}, ${quantity(s.VA, 'VA')}` },
    {
      label: 'Worst start, with what runs',
      of: s =>
        s.worstStart
          ? `${quantity(s.worstStart.needVA, 'VA')}: ${s.worstStart.load}, by ${s.worstStart.method}`
          : 'none to speak of',
    },
  ]
  return (
    <section className={styles.card} aria-label="Needs by school">
      <h2>What is needed, by each school</h2>
      <div className={styles.scroll}>
        <table className={styles.table}>
          <thead>
            <tr>
              <th scope="col" aria-label="Figure" />
              {schools.map(s => (
                <th scope="col" key={s.school} className={s.school === 'blended' ? styles.in : undefined}>
                  {schoolNames[s.school].name}
                  <div>{schoolNames[s.school].help}</div>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map(({ label, of }) => (
              <tr key={label}>
                <th scope="row">{label}</th>
                {schools.map(s => (
                  <td key={s.school} className={s.school === 'blended' ? styles.in : undefined}>
                    {of(s)}
                  </td>
                ))}
              </tr>
            ))}
            <tr>
              <th scope="row">Why it differs</th>
              {schools.map(s => (
                <td key={s.school} className={`${styles.quiet} ${s.school === 'blended' ? styles.in : ''}`}>
                  {s.school === 'blended' ? 'this is what the balance counts' : <Reasons school={s} />}
                </td>
              ))}
            </tr>
          </tbody>
        </table>
      </div>
    </section>
  )
}

function Reasons({ school }: { school: BySchool }) {
  return (
    <>
      {school.reasons.map(r => (
        <div key={r}>{r}</div>
      ))}
      {!school.reasons.length && <div>it hardly does</div>}
      {school.without.length > 0 && <div>{withoutText(school.without)}; the figure in force stands in</div>}
    </>
  )
}

/** What to measure next, by how much of the doubt each load makes. */
function Next({ learn, onOpen }: { learn: Learn; onOpen: (loadId: string) => void }) {
  const showWorking = useWorkspace(s => s.showWorking)
  const { dailyWh, hours, next } = learn
  return (
    <section className={styles.card} aria-label="What to measure next">
      <h2>What to measure next</h2>
      <p>
        Four days in five take {quantity(dailyWh.low, 'Wh')} to {quantity(dailyWh.high, 'Wh')}
        {hours && `: ${quantity(hours.low, 'h')} to ${quantity(hours.high, 'h')} of run time`}.{' '}
        <Button size="small" aria-haspopup="dialog" onClick={() => showWorking(learn.working)}>
          Show the working
        </Button>
      </p>
      <ol className={styles.next}>
        {next.slice(0, 5).map(n => (
          <li key={`${n.moves} ${n.load.load.id}`}>
            <span className={styles.share}>
              {n.moves === 'start' ? 'start' : quantity(n.share, 'fraction')}
            </span>
            <span>
              <button type="button" className={styles.open} onClick={() => onOpen(n.load.load.id)}>
                {n.load.load.name}
              </button>{' '}
              on {n.load.need.position}. {n.why} <span className={styles.quiet}>{n.how}</span>
            </span>
          </li>
        ))}
      </ol>
    </section>
  )
}

const tierNames = { 1: 'Must run', 2: 'Should run', 3: 'May go' } as const

/** The day's energy as it flows out: by importance, then by circuit. */
function Tiers({ tiers }: { tiers: TierNeed[] }) {
  const most = Math.max(...tiers.flatMap(t => t.circuits.map(c => c.dailyWh)), 1)
  return (
    <section className={styles.card} aria-label="Energy a day by importance">
      <h2>Where a day’s energy goes</h2>
      {tiers.map(t => (
        <div key={t.tier}>
          <p>
            <b>{tierNames[t.tier]}</b>: {quantity(t.dailyWh, 'Wh')} a day
          </p>
          {t.circuits.map(c => (
            <div key={c.circuitId} className={styles.bar}>
              <span title={`${c.position} ${c.name}`}>
                {c.position} {c.name}
              </span>
              <span>
                <div className={styles.flow} style={{ width: `${(100 * c.dailyWh) / most}%` }} />
              </span>
              <span className={styles.share}>{quantity(c.dailyWh, 'Wh')}</span>
            </div>
          ))}
        </div>
      ))}
    </section>
  )
}

function LoadTable({ rows, onOpen }: { rows: LoadRow[]; onOpen: (loadId: string) => void }) {
  if (!rows.length)
    return (
      <p className={styles.empty}>
        No load is entered yet. Add one from the library here, or with its circuit on the panel.
      </p>
    )
  return (
    <div className={styles.scroll}>
      <table className={styles.table}>
        <thead>
          <tr>
            <th scope="col">Circuit</th>
            <th scope="col">Load</th>
            <th scope="col" className={styles.num}>
              Running
            </th>
            <th scope="col" className={styles.num}>
              Runs
            </th>
            <th scope="col" className={styles.num}>
              A day
            </th>
            <th scope="col">Energy known by</th>
            <th scope="col">Start known by</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(r => (
            <tr key={`${r.circuitId} ${r.load.id}`} data-counts={r.counts}>
              <td>
                {r.position} {r.label}
                {!r.counts && (
                  <span className={styles.quiet}> {r.picked ? '(not fed)' : '(not picked)'}</span>
                )}
              </td>
              <td>
                <button type="button" className={styles.open} onClick={() => onOpen(r.load.id)}>
                  {r.load.name}
                </button>
              </td>
              <td className={styles.num}>{quantity(r.load.runningW.value, 'W')}</td>
              <td className={styles.num}>
                {figure(100 * r.drawn.dutyFraction)} %{r.drawn.scaling.kind === 'weather' && '*'}
              </td>
              <td className={styles.num}>{quantity(r.drawn.dailyWh, 'Wh')}</td>
              <td>
                <From from={r.from} />
              </td>
              <td>
                {r.startFrom ? <From from={r.startFrom} /> : <span className={styles.quiet}>no start</span>}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {rows.some(r => r.drawn.scaling.kind === 'weather') && (
        <p className={styles.quiet}>* scaled to the weather of the outage</p>
      )}
    </div>
  )
}
