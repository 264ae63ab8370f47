import { inEdition } from '@/core/articles'
import { deference } from '@/core/deference'
import type { Job } from '@/core/job/schema'
import { type HoldKind, holdKinds } from '@/core/order/holds'
import { standOf, type TaskStand } from '@/core/order/stand'
import { phases, type Task, type WorkOrder } from '@/core/order/task'
import { holdText } from '@/core/order/words'
import { aboutText, minutesText, together } from '@/core/units/format'
import styles from './Booklet.module.css'

interface Props {
  job: Job
  order: WorkOrder
  lead: string
  /** what stands against the design */
  stops: readonly string[]
  firm: string
  revision: number
  printedOn: string
}

/** The work order on paper: a box for each step, lines for what is read, and what stays live on every page that needs it. */
export function Booklet({ job, order, lead, stops, firm, revision, printedOn }: Props) {
  const stand = standOf(job, order)
  return (
    <article className={styles.booklet}>
      <style>{'@page { size: letter; margin: 0.4in }'}</style>
      <header>
        <h1>{job.title}: work order</h1>
        <p>
          {job.place} · {firm}, revision {revision}, {printedOn} · NEC {job.edition}
        </p>
        <p>{lead}</p>
        {stops.length > 0 && (
          <p className={styles.live}>
            Stands against this design, and is mended before anything is opened: {stops.join(' ')}
          </p>
        )}
        <p>
          <span className={styles.line}>Date</span> <span className={styles.line}>Who</span>{' '}
          <span className={styles.line}>With</span>
        </p>
      </header>
      {order.tasks.map((t, n) => {
        const before = order.tasks[n - 1]
        return (
          <div key={t.id}>
            {(before?.phase !== t.phase || before.window !== t.window) && (
              <h2>
                {phases[t.phase].name}
                {t.window !== null &&
                  ` · power off, about ${aboutText(order.windows.find(w => w.id === t.window)?.minutes ?? 0)}`}
              </h2>
            )}
            <Step job={job} task={t} number={n + 1} now={stand.tasks.get(t.id)} />
          </div>
        )
      })}
      <footer>
        <p>
          To prove dead is never left out. What was left out, why, and by whom: ______________________________
        </p>
        <p>{deference}</p>
      </footer>
    </article>
  )
}

interface StepProps {
  job: Job
  task: Task
  number: number
  now: TaskStand | undefined
}

/** A box, and a line for each figure; what the field wrote down already stands in their place. */
function Step({ job, task, number, now }: StepProps) {
  return (
    <section className={styles.step} aria-label={`Step ${number}`}>
      <div className={styles.box}>{now?.state === 'done' && '✓'}</div>
      <div>
        <h3>
          {number}. {task.text} ({minutesText(task.minutes)}
          {task.people > 1 && ', two people'})
        </h3>
        {task.staysLive.length > 0 && (
          <p className={styles.live}>STAYS LIVE: {together(task.staysLive.map(p => p.name))}.</p>
        )}
        {task.window === null && task.keptOpen.length > 0 && (
          <p className={styles.live}>Nobody closes: {together(task.keptOpen.map(k => k.name))}.</p>
        )}
        <ul>
          {task.lines.map(l => (
            <li key={l}>{inEdition(l, job.edition)}</li>
          ))}
        </ul>
        {now?.otherwise && <p className={styles.live}>Done otherwise: {now.otherwise}</p>}
        {now?.holds.map(stand => {
          const { hold: h, evidence, skipped } = stand
          return (
            <div key={h.id} className={styles.hold}>
              <b>STOP · {holdKinds[h.kind].name}</b>
              <span>{inEdition(h.text, job.edition)}</span>
              {evidence || skipped ? (
                <span className={styles.live}>{holdText(stand)}</span>
              ) : (
                <>
                  {h.readings.map(r => (
                    <span key={r.key} className={styles.line}>
                      {r.name}, {r.unit}
                    </span>
                  ))}
                  {wordOf(h.kind) && <span className={styles.line}>{wordOf(h.kind)}</span>}
                  {h.kind === 'torque' && <span className={styles.line}>Tool</span>}
                  <span className={styles.line}>Initials</span>
                </>
              )}
            </div>
          )
        })}
        {now?.notes.map(n => (
          <p key={`${n.by} ${n.text}`}>
            {n.by}: {n.text}
          </p>
        ))}
      </div>
    </section>
  )
}

const words: Partial<Record<(typeof holdKinds)[HoldKind]['asks'], string>> = {
  confirm: 'Seen at',
  photo: 'Tag number, photograph',
  initials: 'Pulled by',
  second: 'Seen by',
}
const wordOf = (kind: HoldKind) => words[holdKinds[kind].asks]
