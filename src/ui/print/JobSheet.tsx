import { evaluate } from '@/core/assess/evaluate'
import { circuitNeeds } from '@/core/assess/needs'
import { calculate } from '@/core/calculator'
import { calculators } from '@/core/calculators'
import { deference } from '@/core/deference'
import { methodOf } from '@/core/hookup/method'
import { asPlanned } from '@/core/job/as-planned'
import { tiedPanel } from '@/core/job/panels'
import type { Calculation, Job } from '@/core/job/schema'
import { isKnown } from '@/core/panel/schema'
import { arrangementNames } from '@/core/source/arrangement'
import { sourceName } from '@/core/source/store'
import { quantity } from '@/core/units/format'
import { type DirectoryPlace, directoryOf } from '@/core/work/directory'
import styles from './JobSheet.module.css'

/** One page for the door: directory, picked circuits, balance, cautions. */
export function JobSheet({
  job: found,
  revision,
  printedOn,
  firm,
  authority = '',
}: {
  job: Job
  revision: number
  printedOn: string
  firm: string
  /** who inspects */
  authority?: string
}) {
  const evaluation = evaluate(found)
  const { job } = asPlanned(found)
  const picked = circuitNeeds(job).filter(n => n.circuit.picked)
  const { source, outage } = job
  const panel = tiedPanel(job)
  const dense = panel.spaces > 30 || picked.length > 14
  const answers = job.calculations.map(c => ({ ...c, answer: answerOf(c) }))
  const grave = evaluation.findings.filter(
    f => !f.accepted && (f.severity === 'stop' || f.severity === 'fix'),
  )
  const today = evaluation.settled.filter(s => s.today)
  const accepted = evaluation.findings.filter(f => f.accepted)
  return (
    <article className={styles.sheet} data-dense={dense}>
      <header>
        <div>
          <h1>{job.title}</h1>
          <p>{job.place}</p>
        </div>
        <p>
          {firm}
          <br />
          revision {revision}, {printedOn}
          <br />
          NEC {job.edition}
          {authority && `, ${authority}`}
        </p>
      </header>
      <p className={styles.design}>
        {source
          ? `${sourceName(source)}, ${arrangementNames[source.arrangement]}, ${methodOf(job.hookup.method).name}. ${quantity(outage.hours, 'h')} asked, ${quantity(outage.reserveFraction, 'fraction')} kept in reserve.`
          : 'No source is chosen yet.'}
      </p>
      <div className={styles.columns}>
        <section>
          <h2>
            Directory: {panel.name}, {panel.mainA === undefined ? 'main lugs' : `main ${panel.mainA} A`}
          </h2>
          <table className={styles.directory}>
            <tbody>
              {directoryOf(job, panel).map(([odd, even]) => (
                <tr key={odd.space}>
                  <Cell place={odd} />
                  <Cell place={even} />
                </tr>
              ))}
            </tbody>
          </table>
          <p className={styles.small}>
            ■ picked for the outage. n.t.: no one has seen it die for certain.
            {job.panels.length > 1 && ' The other panels have a directory each.'}
          </p>
        </section>
        <section>
          <h2>Picked circuits</h2>
          {picked.length ? (
            <table className={styles.table}>
              <tbody>
                {picked.map(n => (
                  <tr key={n.circuit.id}>
                    <td>{n.position}</td>
                    <td>{n.circuit.label || 'Unlabelled'}</td>
                    <td>{n.leg === 'both' ? '240 V' : n.leg}</td>
                    <td>{quantity(n.meanW, 'W')}</td>
                    <td>{n.served ? '' : source ? 'not served' : ''}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          ) : (
            <p>None.</p>
          )}
          <h2>Balance</h2>
          <table className={styles.table}>
            <thead>
              <tr>
                <th scope="col" />
                <th scope="col">needs</th>
                <th scope="col">has</th>
                <th scope="col" />
              </tr>
            </thead>
            <tbody>
              {evaluation.balance.map(l => (
                <tr key={l.id}>
                  <td>{l.label}</td>
                  <td>{l.need === null ? '–' : quantity(l.need, l.unit)}</td>
                  <td>{l.have === null ? '–' : quantity(l.have, l.unit)}</td>
                  <td>{l.verdict}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <h2>Cautions</h2>
          <ul className={styles.cautions}>
            {evaluation.cautions.map(c => (
              <li key={c.text}>
                {c.text} {c.article && <span>({c.article})</span>}
              </li>
            ))}
          </ul>
        </section>
      </div>
      {grave.length > 0 && (
        <section className={styles.open}>
          <h2>Open findings, not yet settled</h2>
          <ul>
            {grave.slice(0, 4).map(f => (
              <li key={f.id + f.sentence}>
                <b>{f.severity}</b> {f.sentence} {f.article && `(${f.article})`}
              </li>
            ))}
            {grave.length > 4 && <li>and {grave.length - 4} more on the Findings screen.</li>}
          </ul>
        </section>
      )}
      {today.length > 0 && (
        <section className={styles.open}>
          <h2>In the house as it stands today, until the plan is built</h2>
          <ul>
            {today.map(({ finding }) => (
              <li key={finding.key}>
                <b>{finding.severity}</b> {finding.sentence}
              </li>
            ))}
          </ul>
        </section>
      )}
      {accepted.length > 0 && (
        <section className={styles.open}>
          <h2>Accepted findings</h2>
          <ul>
            {accepted.map(f => (
              <li key={f.key}>
                {f.sentence} Accepted by {f.accepted?.by} on {f.accepted?.on}: {f.accepted?.reason}
              </li>
            ))}
          </ul>
        </section>
      )}
      {answers.length > 0 && (
        <section className={styles.open}>
          <h2>Calculations kept with the job</h2>
          <ul>
            {answers.slice(0, mostAnswers).map(a => (
              <li key={a.id}>
                {a.note && <b>{a.note}: </b>}
                {a.answer}
              </li>
            ))}
            {answers.length > mostAnswers && (
              <li>and {answers.length - mostAnswers} more under Calculations.</li>
            )}
          </ul>
        </section>
      )}
      <footer>{deference}</footer>
    </article>
  )
}

const mostAnswers = 4

function answerOf({ calculator: name, input }: Calculation): string {
  const calculator = calculators.find(c => c.name === name)
  const outcome = calculator && calculate(calculator, input)
  return outcome?.ok
    ? outcome.value.answer
    : `${calculator?.question ?? name} It cannot be answered as it was kept.`
}

function Cell({ place: { name, unusable, entries } }: { place: DirectoryPlace }) {
  return (
    <>
      <td className={styles.space}>{name}</td>
      <td className={styles.entry} data-picked={entries.some(e => e.need.circuit.picked)}>
        {!entries.length && <div>{unusable ? 'not usable' : 'free'}</div>}
        {entries.map(({ need: { circuit }, continued }) => (
          <div key={circuit.id}>
            {circuit.picked && '■ '}
            {circuit.half && `${circuit.half.toUpperCase()} `}
            {continued ? '(second pole)' : circuit.label || 'unlabelled'}
          </div>
        ))}
      </td>
      <td className={styles.rating}>
        {entries.map(
          ({ need: { circuit }, continued }) =>
            !continued && (
              <div key={circuit.id}>{`${circuit.breakerA} A${isKnown(circuit) ? '' : ' n.t.'}`}</div>
            ),
        )}
      </td>
    </>
  )
}
