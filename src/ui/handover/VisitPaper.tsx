import { deference } from '@/core/deference'
import { livedText } from '@/core/handover/lived'
import { visitTold } from '@/core/handover/standing'
import type { Job } from '@/core/job/schema'
import { type Visit, visitKinds } from '@/core/job/visits'
import { quantity } from '@/core/units/format'
import styles from '../field/Booklet.module.css'

interface Props {
  job: Job
  visit: Visit
  firm: string
  revision: number
  printedOn: string
}

/** What a visit changed, to be stuck over what stood there before. */
export function VisitPaper({ job, visit, firm, revision, printedOn }: Props) {
  const { figures, directory, card } = visitTold(job, visit)
  return (
    <article className={styles.booklet}>
      <header>
        <h1>{visitKinds[visit.kind].name}</h1>
        <p>
          {job.title}
          {job.place && `, ${job.place}`}. {visit.on}, {visit.by}
        </p>
        {visit.text && <p>{visit.text}</p>}
        {visit.lived && <p>{livedText(visit.lived)}</p>}
        {visit.done && (
          <p>
            <b>Done:</b> {visit.done}
          </p>
        )}
      </header>
      {directory.came.length + directory.went.length > 0 && (
        <section>
          <h2>Directory and labels</h2>
          <table style={{ width: '100%', textAlign: 'left', borderSpacing: 0 }}>
            <thead>
              <tr>
                <th scope="col">Before</th>
                <th scope="col">Now</th>
              </tr>
            </thead>
            <tbody>
              {pairs(directory.went, directory.came).map(([was, is]) => (
                <tr key={`${was}>${is}`}>
                  <td>{was || '–'}</td>
                  <td>
                    <b>{is || 'taken out'}</b>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
      {card.came.length + card.went.length > 0 && (
        <section>
          <h2>The card reads otherwise: take the old one down, print the new one</h2>
          <ul>
            {card.came.map(l => (
              <li key={l}>{l}</li>
            ))}
          </ul>
        </section>
      )}
      {figures.length > 0 && (
        <section>
          <h2>Figures</h2>
          <table style={{ width: '100%', textAlign: 'left', borderSpacing: 0 }}>
            <tbody>
              {figures.map(f => (
                <tr key={f.id}>
                  <th scope="row">{f.label}</th>
                  <td>{f.before === null ? '–' : quantity(f.before, f.unit)}</td>
                  <td>
                    <b>{f.after === null ? '–' : quantity(f.after, f.unit)}</b>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
      {!figures.length && !directory.came.length && !directory.went.length && !card.came.length && (
        <p>Nothing that is printed has changed.</p>
      )}
      <footer>
        {firm}, revision {revision} against revision {visit.before.revision}, {printedOn}. {deference}
      </footer>
    </article>
  )
}

const placeOf = (line: string) => line.split(' ')[0] ?? ''

/** Lines that went beside those that came at the same place. */
function pairs(went: readonly string[], came: readonly string[]): [string, string][] {
  const places = [...new Set([...went, ...came].map(placeOf))]
  return places.flatMap(place => {
    const was = went.filter(l => placeOf(l) === place)
    const is = came.filter(l => placeOf(l) === place)
    return Array.from({ length: Math.max(was.length, is.length) }, (_, n): [string, string] => [
      was[n] ?? '',
      is[n] ?? '',
    ])
  })
}
