import type { Worked } from '@/core/calculator'
import { SeverityTag } from '../common/SeverityTag'
import styles from './Answer.module.css'

interface Props {
  worked: Pick<Worked<unknown>, 'answer' | 'findings' | 'next'> | null
  waiting: readonly string[]
  wrong: readonly string[]
}

/** The first sentence, and what follows it. */
function parted(text: string): [string, string] {
  const at = text.search(/\.\s+(?=[A-Z“])/)
  return at < 0 ? [text, ''] : [text.slice(0, at + 1), text.slice(at + 1).trim()]
}

/** The answer in a sentence, or what it still waits for, or what does not fit and what to do about it. */
export function Answer({ worked, waiting, wrong }: Props) {
  const said = worked
    ? worked.answer
    : wrong.length
      ? (wrong[0] ?? '')
      : `Waiting for ${waiting.join(', ').toLowerCase()}.`
  const [first, rest] = parted(said)
  return (
    <section className={styles.answer} aria-label="Answer" data-answered={worked !== null}>
      <div role="status">
        <p className={styles.sentence}>{first}</p>
        {rest && <p>{rest}</p>}
      </div>
      {worked?.findings.map(f => (
        <p key={f}>
          <SeverityTag severity="fix" /> {f}
        </p>
      ))}
      {worked?.next && (
        <p>
          <b>What to do next: </b>
          {worked.next}
        </p>
      )}
      {!worked && wrong.slice(1).map(w => <p key={w}>{w}</p>)}
      {!worked && wrong.length > 0 && waiting.length > 0 && <p>Then: {waiting.join(', ').toLowerCase()}.</p>}
    </section>
  )
}
