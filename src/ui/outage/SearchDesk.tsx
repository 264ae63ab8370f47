'use client'
import Button from '@mui/material/Button'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import LinearProgress from '@mui/material/LinearProgress'
import dynamic from 'next/dynamic'
import { startTransition, useEffect, useState } from 'react'
import type { Equipment } from '@/core/equipment'
import type { Labour } from '@/core/hookup/labour'
import { outOf100 } from '@/core/outage/words'
import { adopted } from '@/core/search/adopt'
import type { Found, SearchResult } from '@/core/search/search'
import { labourRate, spaceOf, type Wishes, wishesSchema } from '@/core/search/space'
import type { Stock } from '@/core/search/stock'
import { figure, quantity } from '@/core/units/format'
import { call } from '../api'
import { EditField, readNumber } from '../common/EditField'
import { useWorkspace } from '../workspace/store'
import styles from './Outage.module.css'
import { useSearch } from './useSearch'
import { useServerSearch } from './useServerSearch'

const loadChart = () => import('./FrontChart').then(m => m.FrontChart)
const FrontChart = dynamic(loadChart, {
  loading: () => <div className={styles.front} />,
})

const wishNames = {
  automatic: 'Must start by itself',
  useOwned: 'Uses what they own',
  noGenerator: 'No generator',
  onePerson: 'One person can carry each part',
  fromStock: 'Only what is in stock',
} as const
const budget = wishesSchema.shape.mostPrice.unwrap()

/** The search over the catalogue: wishes, progress, the front, why the rest is left out; a design is taken up by one press. */
export function SearchDesk({
  catalogue,
  stock,
  labour,
}: {
  catalogue: Equipment[]
  stock: Stock
  labour: Labour
}) {
  const job = useWorkspace(s => s.job)
  const jobId = useWorkspace(s => s.id)
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const [wishes, setWishes] = useState<Wishes>(() => ({
    ...wishesSchema.parse({}),
    labour,
    automatic: job.brief.automatic === 'must',
    ...(job.brief.budget !== undefined && job.brief.budget > 0 && { mostPrice: job.brief.budget }),
  }))
  const here = useSearch()
  // the drawing is fetched while nothing else is to be done
  useEffect(() => {
    const idle = window.requestIdleCallback?.(() => void loadChart()) ?? 0
    return () => window.cancelIdleCallback?.(idle)
  }, [])
  const there = useServerSearch(jobId)
  const busy = here.busy || there.busy
  const result = there.result ?? here.result
  const sentence = there.result ? there.sentence : here.sentence
  const takeUp = (found: Found) => {
    const operation = adopted(
      spaceOf(there.result ? (there.job ?? job) : job, catalogue, wishes),
      found.design,
    )
    if (!operation) return say('This design is no longer there: search again.')
    const faults = act({
      op: 'applyFix',
      label: `Take up ${found.name}`.slice(0, 160),
      operations: [operation],
    })
    say(
      faults.length
        ? faults.map(f => f.message).join('; ')
        : `Taken up: ${found.name}. Undo brings back what was.`,
    )
  }
  return (
    <section id="search-designs" className={styles.card} aria-label="Search designs">
      <h2>Search designs</h2>
      <p className={styles.help}>
        Every source, arrangement, hook-up, generator and number of modules of the catalogue, against the
        picked circuits and this outage. What a check stops is dropped, with the reason counted.
      </p>
      <div className={styles.wishes}>
        {(Object.keys(wishNames) as (keyof typeof wishNames)[]).map(key => (
          <FormControlLabel
            key={key}
            label={wishNames[key]}
            control={
              <Checkbox
                checked={wishes[key]}
                onChange={e => setWishes({ ...wishes, [key]: e.target.checked })}
              />
            }
          />
        ))}
        <div className={styles.budget}>
          <EditField
            label="At most"
            unit="$"
            value={wishes.mostPrice === undefined ? '' : String(wishes.mostPrice)}
            help="Parts and labour; empty: any"
            inputMode="decimal"
            read={text => (text.trim() === '' ? { value: null } : readNumber(budget)(text))}
            onCommit={value => {
              setWishes({ ...wishes, mostPrice: value ?? undefined })
              return []
            }}
          />
        </div>
      </div>
      <div className={styles.chartButtons}>
        {busy ? (
          <Button
            variant="contained"
            onClick={() => {
              here.stop()
              void there.cancel()
            }}
          >
            Stop the search
          </Button>
        ) : (
          <>
            <Button
              variant="contained"
              disableRipple
              onClick={() => {
                there.forget()
                here.run(job, catalogue, stock, wishes)
              }}
            >
              Search here
            </Button>
            <Button variant="outlined" onClick={() => void there.run(wishes)}>
              Search on the server
            </Button>
          </>
        )}
      </div>
      {busy && (
        <div role="status" aria-live="polite">
          <LinearProgress
            variant="determinate"
            value={100 * (here.busy ? here.done : there.done)}
            aria-label="Search"
          />
          <p className={styles.help}>{here.busy ? here.what : there.what}</p>
        </div>
      )}
      {(here.trouble ?? there.trouble) && <p role="alert">{here.trouble ?? there.trouble}</p>}
      {!busy && here.what === 'Stopped' && !result && (
        <p className={styles.help}>Stopped. Nothing was changed.</p>
      )}
      {result && (
        <Results result={result} sentence={sentence} ms={there.result ? null : here.ms} onTake={takeUp} />
      )}
    </section>
  )
}

const measures = {
  price: { title: 'Price', unit: '$' },
  weight: { title: 'Weight', unit: 'lb' },
  hours: { title: 'Labour', unit: 'h' },
} as const
type Measure = keyof typeof measures

function Results({
  result,
  sentence,
  ms,
  onTake,
}: {
  result: SearchResult
  sentence: string
  ms: number | null
  onTake: (found: Found) => void
}) {
  const [by, setBy] = useState<Measure>('price')
  // the sentence at once, then the table, then the drawing: each a short task of its own
  const [stage, setStage] = useState(0)
  useEffect(() => {
    if (stage < 2) startTransition(() => setStage(stage + 1))
  }, [stage])
  const front = result.front.filter(f => f.bestBy.includes(by))
  return (
    <div className={styles.results} data-found={result.front.length}>
      <p className={styles.sentence}>{sentence}</p>
      <p className={styles.help}>
        {result.bounded.toLocaleString('en-US')} kinds were decided in closed form,{' '}
        {result.simulated.toLocaleString('en-US')} simulated, {result.finals.toLocaleString('en-US')} to the
        last of {result.draws} draws, seed {result.seed}
        {ms === null ? ', on the server' : `, in ${figure(ms / 1000)} s here`}. Price: catalogue, small parts,
        and labour at {quantity(labourRate, '$')} an hour (assumed). An overload counts as if no generator
        carried the house.
      </p>
      {result.always.map(why => (
        <p key={why.id} className={styles.help}>
          Stays whatever the design: {why.sentence}
        </p>
      ))}
      {result.front.length > 0 && (
        <>
          <div className={styles.chartButtons}>
            {(Object.keys(measures) as Measure[]).map(m => (
              <Button
                key={m}
                size="small"
                variant={by === m ? 'contained' : 'outlined'}
                aria-pressed={by === m}
                onClick={() => setBy(m)}
              >
                {measures[m].title} against chance
              </Button>
            ))}
          </div>
          {stage > 1 ? (
            <FrontChart
              front={front}
              all={result.front}
              by={by}
              title={measures[by].title}
              unit={measures[by].unit}
            />
          ) : (
            <div className={styles.front} />
          )}
          <div className={styles.tables}>
            <table className={styles.found}>
              <thead>
                <tr>
                  <th scope="col">Of 100</th>
                  <th scope="col">Price</th>
                  <th scope="col">Weight</th>
                  <th scope="col">Labour</th>
                  <th scope="col">Design</th>
                  <th scope="col">
                    <span className="visually-hidden">Take it up</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {(stage > 0 ? front : []).map(f => (
                  <tr key={f.name}>
                    <td className={styles.number} data-title="Of 100">
                      {outOf100(f.chance.fraction)}
                      <br />
                      <small>
                        {outOf100(f.chance.low)}–{outOf100(f.chance.high)}
                      </small>
                    </td>
                    <td className={styles.number} data-title="Price">
                      {quantity(f.price, '$')}
                    </td>
                    <td className={styles.number} data-title="Weight">
                      {quantity(f.weightLb, 'lb')}
                    </td>
                    <td className={styles.number} data-title="Labour">
                      {quantity(f.hours, 'h')}
                    </td>
                    <td>
                      {f.name}
                      {f.plans.map(p => (
                        <small key={p}>{p}</small>
                      ))}
                      <small>
                        {f.toOrder.length ? `To order: ${f.toOrder.join(', ')}` : 'All of it in stock'}
                      </small>
                    </td>
                    <td>
                      <Button
                        size="small"
                        variant="outlined"
                        className={styles.take}
                        onClick={() => onTake(f)}
                        aria-label={`Take up ${f.name}`}
                      >
                        Take up
                      </Button>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        </>
      )}
      {result.front.length === 0 && (
        <p>
          Nothing of the catalogue lasts that long with these wishes. Drop circuits, shorten the outage, or
          let a wish go.
        </p>
      )}
      <details className={styles.taken} open={result.front.length === 0}>
        <summary>Why the others are left out</summary>
        <ul>
          {result.leftOut.map(l => (
            <li key={l.family}>
              <strong>{l.family}:</strong> {l.sentence}
            </li>
          ))}
        </ul>
      </details>
      <details className={styles.taken}>
        <summary>What was dropped, by reason</summary>
        <div className={styles.tables}>
          <table>
            <thead>
              <tr>
                <th scope="col">Designs</th>
                <th scope="col">Reason</th>
                <th scope="col">For example</th>
              </tr>
            </thead>
            <tbody>
              {result.dropped.map(d => (
                <tr key={d.id}>
                  <td className={styles.number}>{d.designs.toLocaleString('en-US')}</td>
                  <td>{d.id}</td>
                  <td>{d.sentence}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </details>
    </div>
  )
}

interface Firm {
  equipment: Equipment[]
  stock: Stock
  labour: Labour
}

/** The desk with the firm's catalogue, fetched when it is opened. */
export default function SearchDeskHere() {
  const [firm, setFirm] = useState<Firm | null>(null)
  const [trouble, setTrouble] = useState<string | null>(null)
  useEffect(() => {
    void call<Firm>('/api/equipment', 'GET').then(answer =>
      answer.ok ? setFirm(answer.data) : setTrouble(answer.message),
    )
  }, [])
  if (trouble) return <p role="alert">{trouble}</p>
  return firm ? (
    <SearchDesk catalogue={firm.equipment} stock={firm.stock} labour={firm.labour} />
  ) : (
    <p className={styles.empty}>The catalogue is being fetched…</p>
  )
}
