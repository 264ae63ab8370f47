import { memo, useId } from 'react'
import { briefSchema } from '@/core/ask/brief'
import { answerText, isOpen, type Question } from '@/core/ask/questions'
import { Quiet } from '../common/pieces'
import { EditField, readNumber } from '../form/EditField'
import { Options } from '../form/Options'
import { useWorkspace } from '../workspace/store'
import styles from './AskView.module.css'

interface Props {
  question: Question
  next?: boolean
  /** the question alone: why, and that it is not known yet, go without saying */
  short?: boolean
}

/** One question of the brief, answered in place; an emptied answer opens it again. */
export const QuestionField = memo(function QuestionField({ question, next = false, short = false }: Props) {
  const act = useWorkspace(s => s.act)
  const id = useId()
  const { key, answering } = question
  const value = useWorkspace(s => s.job.brief[key])
  const brief = { wants: [], [key]: value }
  const answer = (given: unknown) => {
    if (given === null) return act({ op: 'answerBrief', answers: {}, clear: [key] })
    const parsed = briefSchema.shape[key].safeParse(given)
    if (!parsed.success) return [{ path: key, message: parsed.error.issues[0]?.message ?? 'cannot be taken' }]
    return act({ op: 'answerBrief', answers: { [key]: parsed.data } })
  }
  const open = isOpen(brief, key)
  return (
    <div className={styles.question} data-open={open} data-next={next} data-question={key}>
      <p id={id}>
        <b>{question.ask}</b> {open && !short && <Quiet component="span">{question.why}</Quiet>}
      </p>
      {answering.by === 'choice' ? (
        <Options
          label={question.ask}
          labelledBy={id}
          value={value}
          options={answering.options
            .filter(([option]) => !short || option !== 'unknown')
            .map(([option, label]) => ({ value: option, label }))}
          onChange={answer}
          onAgain={() => answer(null)}
        />
      ) : (
        <EditField
          key={key}
          label={answering.by === 'words' ? 'Answer' : 'Figure'}
          value={shown(value, answering.by === 'figure' && answering.perCent === true)}
          {...(answering.by === 'figure' && { unit: answering.unit, inputMode: 'decimal' as const })}
          {...(answering.by === 'words' && open && { help: `such as ${answering.example}` })}
          read={text => {
            if (!text.trim()) return { value: null }
            if (answering.by === 'words') return { value: text }
            const got = readNumber(anyNumber, answering.perCent ? 0.01 : 1)(text)
            return got
          }}
          onCommit={answer}
        />
      )}
      {!open && answering.by !== 'choice' && (
        <span className="visually-hidden">{answerText(brief, question)}</span>
      )}
    </div>
  )
})

const anyNumber = briefSchema.shape.budget.unwrap().or(briefSchema.shape.coldestC.unwrap())

const shown = (value: unknown, perCent: boolean) =>
  value === undefined ? '' : perCent ? String(Number((Number(value) * 100).toPrecision(12))) : String(value)
