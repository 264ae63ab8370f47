import { inEdition } from '@/core/articles'
import { rangeText, readingText, togetherText } from '@/core/commission/judge'
import { isSettled, standOfTests, standText, type TestStand } from '@/core/commission/stand'
import { groupKeys, groups, instruments, supplies, type Test, type TestList } from '@/core/commission/tests'
import { deference } from '@/core/deference'
import type { Job } from '@/core/job/schema'
import { ofTests } from '@/core/job/test-log'
import { together } from '@/core/units/format'
import styles from '../field/Booklet.module.css'

interface Props {
  job: Job
  list: TestList
  firm: string
  revision: number
  printedOn: string
}

/** The record of tests on paper: what was read and what it came to; a line where something is still to be read. */
export function TestRecord({ job, list, firm, revision, printedOn }: Props) {
  const stand = standOfTests(job, list)
  return (
    <article className={styles.booklet}>
      <style>{'@page { size: letter; margin: 0.4in }'}</style>
      <header>
        <h1>{job.title}: record of tests</h1>
        <p>
          {job.place} · {firm}, revision {revision}, {printedOn} · NEC {job.edition}
        </p>
        <p>{standText(stand)}</p>
        {stand.failed.length > 0 && (
          <p className={styles.live}>FAILED: {together(stand.failed.map(t => t.text))}.</p>
        )}
        {stand.again.length > 0 && (
          <p className={styles.live}>TO BE READ AGAIN: {together(stand.again.map(t => t.text))}.</p>
        )}
        <p>
          <span className={styles.line}>Date</span> <span className={styles.line}>Who</span>{' '}
          <span className={styles.line}>Instrument</span>
        </p>
      </header>
      {groupKeys.map(group => {
        const here = list.tests.filter(t => t.group === group)
        if (!here.length) return null
        return (
          <div key={group}>
            <h2>
              {groups[group].name}: {groups[group].about}
            </h2>
            {group === 'matrix' ? (
              <Grid list={list} stands={stand.tests} />
            ) : (
              here.map(t => <Line key={t.id} job={job} test={t} stand={stand.tests.get(t.id)} />)
            )}
          </div>
        )
      })}
      <h2>Inspection</h2>
      <InspectionLines job={job} stand={stand.inspection} />
      <footer>
        <p>{deference}</p>
      </footer>
    </article>
  )
}

const markOf = (stand: TestStand | undefined): string =>
  stand === undefined || stand.state === 'open'
    ? ''
    : stand.state === 'passed'
      ? '✓'
      : stand.state === 'failed'
        ? '✗'
        : stand.state === 'left out'
          ? '–'
          : '?'

/** One test: what is expected, what was read; a line for each figure that is missing. */
function Line({ job, test, stand }: { job: Job; test: Test; stand: TestStand | undefined }) {
  const read = stand && stand.state !== 'again' ? stand.read : null
  const mended = ofTests(stand?.history ?? [], 'mended')
  return (
    <section className={styles.step} aria-label={test.text}>
      <div className={styles.box}>{markOf(stand)}</div>
      <div>
        <h3>{test.text}</h3>
        {!read && (
          <p>
            {test.setUp.says.join(' ')} {[...new Set(test.together.map(t => togetherText(t)))].join(' ')}
          </p>
        )}
        <div className={styles.reads}>
          {test.asks.map(a => {
            const value = read?.readings.find(r => r.key === a.key)?.value
            return value === undefined ? (
              <span key={a.key} className={styles.line}>
                {a.name}
                {a.unit && `, ${a.unit}`}
                {a.expected && ` (${rangeText(a.expected, a.unit)})`}
                {a.choices && `: ${a.choices.join(' / ')}`}
              </span>
            ) : (
              <span key={a.key}>
                {a.name} <b>{readingText(value, a.unit)}</b>
                {a.expected && ` (${rangeText(a.expected, a.unit)})`}
              </span>
            )
          })}
        </div>
        {read ? (
          <p>
            {stand?.verdict?.name}
            {stand?.state !== 'passed' && `: ${stand?.verdict?.text}`} · {read.by}, {read.on}
            {read.instrument && `, ${read.instrument}`}
            {read.simulated && <b> · SIMULATED: proves nothing in a house</b>}
          </p>
        ) : (
          <p>{[...new Set(test.asks.map(a => instruments[a.instrument].name))].join('; ')}</p>
        )}
        {stand?.stale && <p className={styles.live}>{stand.stale}</p>}
        {stand?.leftOut && (
          <p className={styles.live}>
            Left out by {stand.leftOut.by}: {stand.leftOut.why}
          </p>
        )}
        {mended.map(m => (
          <p key={m.id}>
            Mended, {m.by}, {m.on}: {m.what}
          </p>
        ))}
        {test.cite.length > 0 && stand && !isSettled(stand) && (
          <p>{inEdition(`NEC ${test.cite.join(', ')}`, job.edition)}</p>
        )}
      </div>
    </section>
  )
}

/** Circuits by supply, as a table to be filled in. */
function Grid({ list, stands }: { list: TestList; stands: ReadonlyMap<string, TestStand> }) {
  const cell = (id: string | null, test: Test | undefined) => {
    if (id === null) return ''
    const stand = stands.get(id)
    const read = stand && stand.state !== 'again' ? stand.read : null
    return `${markOf(stand)} ${(read?.readings ?? []).map(r => readingText(r.value, test?.asks.find(a => a.key === r.key)?.unit ?? null)).join(', ')}`
  }
  return (
    <table className={styles.grid}>
      <thead>
        <tr>
          <th>Circuit</th>
          <th>Utility, V</th>
          <th>Off, V</th>
          <th>Source, V and W</th>
          <th>Planned</th>
        </tr>
      </thead>
      <tbody>
        {list.matrix.map(row => (
          <tr key={row.circuitId}>
            <th>
              {row.name}
              {row.compressor && ' (rests 5 min)'}
            </th>
            {supplies.map(s => (
              <td key={s}>
                {cell(
                  row.tests[s],
                  list.tests.find(t => t.id === row.tests[s]),
                )}
              </td>
            ))}
            <td>{row.sourceW === null ? 'dead' : readingText(row.sourceW, 'W')}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

function InspectionLines({ job, stand }: { job: Job; stand: ReturnType<typeof standOfTests>['inspection'] }) {
  const { appointment, remarks, result } = stand
  return (
    <div>
      {appointment && (
        <p>
          Appointment {appointment.day} {appointment.text}
        </p>
      )}
      {remarks.map(r => (
        <p key={r.id}>
          Remark: {r.text} {r.corrected ? '(corrected)' : <b>(open)</b>}
        </p>
      ))}
      {result ? (
        <p>
          {stand.passed ? 'Passed' : 'To be corrected'}, {result.on}, written down by {result.by}{' '}
          {result.text}
        </p>
      ) : (
        <p>
          <span className={styles.line}>Day</span> <span className={styles.line}>Inspector</span>{' '}
          <span className={styles.line}>Result</span> (NEC {job.edition}, as the authority adopts it)
        </p>
      )}
    </div>
  )
}
