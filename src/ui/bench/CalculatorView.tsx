'use client'
import Button from '@mui/material/Button'
import Snackbar from '@mui/material/Snackbar'
import { Copy, Eraser, Link2 } from 'lucide-react'
import dynamic from 'next/dynamic'
import { useCallback, useEffect, useMemo, useState } from 'react'
import { answerText } from '@/core/answer-text'
import { type Calculator, calculate, curvesOf } from '@/core/calculator'
import type { calculators } from '@/core/calculators'
import { type Field, fieldsOf } from '@/core/field'
import { deference } from '@/core/work/deference'
import { WorkingView } from '../common/WorkingView'
import { Answer } from './Answer'
import styles from './Bench.module.css'
import { type Change, changed, type Draft, emptied, sorted } from './draft'
import { Fields, type FormProps } from './FieldInput'
import { benchPath } from './Finder'
import { LegsPicture } from './LegsPicture'
import { OutletPicture } from './OutletPicture'

const CurveChart = dynamic(() => import('./CurveChart').then(m => m.CurveChart), { ssr: false })
const UseInJob = dynamic(() => import('./UseInJob').then(m => m.UseInJob), { ssr: false })

const pictures: Record<string, (props: FormProps & { fields: readonly Field[] }) => React.ReactNode> = {
  'outlet-readings': OutletPicture,
  'split-readings': LegsPicture,
}

/** Where in which job a calculation came from. */
export interface Origin {
  jobId: string
  calculationId: string | null
  note: string
}

interface Props {
  calculator: (typeof calculators)[number]
  /** null: nothing typed yet, the example stands */
  draft: Draft | null
  onDraft: (next: (now: Draft | null) => Draft) => void
  from: Origin | null
  /** picked just now: the first field takes the focus */
  focus: boolean
}

const linkPauseMs = 400

/** Servers and browsers cut longer addresses short. */
const longestLink = 8_000

/** The address that carries these inputs, and where they came from; null when there is too much of them. */
function linkTo(name: string, draft: Draft, from: Origin | null = null): string | null {
  const query = new URLSearchParams({
    in: JSON.stringify(draft),
    ...(from && { job: from.jobId }),
    ...(from?.calculationId && { calculation: from.calculationId }),
  })
  const link = `${benchPath(name)}?${query}`
  return link.length <= longestLink ? link : null
}

/** A switch of the kind of input (how a start is known) keeps what both kinds have. */
function keptBy(calculator: Pick<Calculator<object, unknown>, 'input'>, draft: Draft): Draft {
  const keys = fieldsOf(calculator.input, draft).map(f => f.key)
  return Object.fromEntries(Object.entries(draft).filter(([key]) => keys.includes(key)))
}

const firstFields = [
  'input[type=radio]:checked',
  'input:not([type=radio], [type=checkbox], [aria-hidden=true])',
  '[role=combobox]',
]
const tooLong = 'Too many rows for a link. Copy the answer as text, or use it in a job.'

const drawPauseMs = 120

/** The value as it stands after a short pause: the answer follows every key, the drawing the last of them. */
function useSettled<T>(value: T): T {
  const [settled, setSettled] = useState(value)
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), drawPauseMs)
    return () => clearTimeout(timer)
  }, [value])
  return settled
}

export const focusFirst = () =>
  document.querySelector<HTMLElement>(firstFields.map(f => `[data-form] ${f}`).join(', '))?.focus()

/** One question: what is given on the left, the answer with curve and working beside it, as one types. */
export function CalculatorView({ calculator, draft: typed, onDraft, from, focus }: Props) {
  const example = useMemo<Draft>(() => ({ ...calculator.example }), [calculator])
  const draft = typed ?? example
  const fields = fieldsOf(calculator.input, draft)
  const outcome = useMemo(() => calculate(calculator, draft), [calculator, draft])
  const later = useSettled(draft)
  const curves = useMemo(() => curvesOf(calculator, later), [calculator, later])
  const [told, setTold] = useState<string | null>(null)
  const [using, setUsing] = useState(false)
  const state = outcome.ok
    ? { problems: new Map(), waiting: [], wrong: [] }
    : sorted(outcome.faults, fields, draft)

  useEffect(() => {
    if (focus) focusFirst()
  }, [focus])
  useEffect(() => {
    if (!typed) return
    const timer = setTimeout(
      () =>
        window.history.replaceState(
          null,
          '',
          linkTo(calculator.name, typed, from) ?? benchPath(calculator.name),
        ),
      linkPauseMs,
    )
    return () => clearTimeout(timer)
  }, [typed, calculator, from])

  const change = useCallback<Change>(
    (path, next) =>
      onDraft(now => {
        const after = changed(now ?? example, path, next)
        return path.length === 1 ? keptBy(calculator, after) : after
      }),
    [calculator, example, onDraft],
  )
  const copy = async (text: string, what: string) => {
    try {
      await navigator.clipboard.writeText(text)
      setTold(`${what} copied.`)
    } catch {
      setTold('The browser does not let this page copy. The link in the address bar carries the inputs.')
    }
  }
  const link = linkTo(calculator.name, draft)
  const address = () => (link ? window.location.origin + link : '')
  const Form = pictures[calculator.name] ?? Fields
  return (
    <div className={styles.view} data-wide={fields.some(f => f.kind === 'rows' && f.of.length > 2)}>
      <h1>{calculator.question}</h1>
      <section className={styles.form} aria-label="Given" data-form>
        {!typed && (
          <p className={styles.hint}>
            An example stands here. Type over it, or{' '}
            <button type="button" onClick={() => onDraft(() => emptied(fields, draft))}>
              start empty
            </button>
            .
          </p>
        )}
        <Form fields={fields} draft={draft} problems={state.problems} onChange={change} />
      </section>
      <div className={styles.answer}>
        <Answer worked={outcome.ok ? outcome.value : null} waiting={state.waiting} wrong={state.wrong} />
      </div>
      <div className={styles.beside}>
        <div className={styles.actions}>
          {outcome.ok && (
            <>
              <Button variant="contained" onClick={() => setUsing(true)}>
                Use in a job
              </Button>
              <Button
                variant="outlined"
                startIcon={<Copy size={16} aria-hidden />}
                onClick={() =>
                  copy(
                    answerText(calculator.question, outcome.value, address()),
                    'Question, answer and working',
                  )
                }
              >
                Copy as text
              </Button>
            </>
          )}
          <Button
            variant="outlined"
            startIcon={<Link2 size={16} aria-hidden />}
            onClick={() => (link ? copy(address(), 'Link') : setTold(tooLong))}
          >
            Copy link
          </Button>
          {typed && (
            <Button
              startIcon={<Eraser size={16} aria-hidden />}
              onClick={() => onDraft(() => emptied(fields, draft))}
            >
              Empty
            </Button>
          )}
        </div>
        {curves.map(curve => (
          <CurveChart key={curve.title} curve={curve} />
        ))}
        {outcome.ok && (
          <div className={styles.paper}>
            <WorkingView working={outcome.value.working} />
          </div>
        )}
        <p className={styles.hint}>{deference}</p>
      </div>
      {using && outcome.ok && (
        <UseInJob
          calculator={calculator}
          input={draft}
          answer={outcome.value.answer}
          from={from}
          onClose={said => {
            setUsing(false)
            if (said) setTold(said)
          }}
        />
      )}
      <Snackbar open={told !== null} autoHideDuration={6000} onClose={() => setTold(null)} message={told} />
    </div>
  )
}
