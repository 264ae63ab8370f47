import { Button, Link, Paper } from '@mui/material'
import { Copy, Eraser, Link2 } from 'lucide-react'
import dynamic from 'next/dynamic'
import { useEffect, useMemo, useState } from 'react'
import { FormProvider, useForm, useWatch } from 'react-hook-form'
import { answerText } from '@/core/answer-text'
import { type Calculator, calculate, curvesOf } from '@/core/calculator'
import type { calculators } from '@/core/calculators'
import { deference } from '@/core/deference'
import { type Field, fieldsOf } from '@/core/field'
import { Column, Quiet, Row } from '../common/pieces'
import { WorkingView } from '../common/WorkingView'
import { type Draft, emptied, type Problems, pruned, sorted } from '../form/draft'
import { Fields } from '../form/FieldInput'
import { LiveProblems } from '../form/useField'
import { AnswerPanel } from './AnswerPanel'
import styles from './Bench.module.css'
import { benchPath } from './Finder'
import { LegsPicture } from './LegsPicture'
import { OutletPicture } from './OutletPicture'
import type { Origin } from './origin'

const Snackbar = dynamic(() => import('@mui/material/Snackbar'))
const CurveChart = dynamic(() => import('./CurveChart').then(m => m.CurveChart), { ssr: false })
const UseInJob = dynamic(() => import('./UseInJob').then(m => m.UseInJob), { ssr: false })

const pictures: Record<string, (props: { fields: readonly Field[]; draft: Draft }) => React.ReactNode> = {
  'outlet-readings': OutletPicture,
  'split-readings': LegsPicture,
}

interface Props {
  calculator: (typeof calculators)[number]
  /** null: nothing typed yet, the example stands */
  draft: Draft | null
  onDraft: (draft: Draft) => void
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

/** The inputs as the calculator takes them: of a kind that was switched away from, only what both kinds have. */
function inputOf(calculator: Pick<Calculator<object, unknown>, 'input'>, values: Draft): Draft {
  const fields = fieldsOf(calculator.input, values)
  const own = fields.filter(f => f.key in values).map(f => [f.key, values[f.key]])
  return pruned(fields, Object.fromEntries(own))
}

const nothingWrong: { problems: Problems; waiting: string[]; wrong: string[] } = {
  problems: new Map(),
  waiting: [],
  wrong: [],
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
  const form = useForm<Draft>({ defaultValues: typed ?? example })
  const [changed, setChanged] = useState(typed !== null)
  const values = useWatch({ control: form.control })
  const draft = useMemo(() => inputOf(calculator, values), [calculator, values])
  const fields = fieldsOf(calculator.input, draft)
  const outcome = useMemo(() => calculate(calculator, draft), [calculator, draft])
  const later = useSettled(draft)
  const curves = useMemo(() => curvesOf(calculator, later), [calculator, later])
  const [told, setTold] = useState<string | null>(null)
  const [using, setUsing] = useState(false)
  const state = outcome.ok ? nothingWrong : sorted(outcome.faults, fields, draft)

  useEffect(() => {
    if (focus) focusFirst()
  }, [focus])
  useEffect(() => form.subscribe({ formState: { values: true }, callback: () => setChanged(true) }), [form])
  useEffect(() => {
    if (!changed) return
    onDraft(draft)
    const timer = setTimeout(
      () =>
        window.history.replaceState(
          null,
          '',
          linkTo(calculator.name, draft, from) ?? benchPath(calculator.name),
        ),
      linkPauseMs,
    )
    return () => clearTimeout(timer)
  }, [changed, draft, calculator, from, onDraft])
  const empty = () => {
    form.reset(emptied(fields, draft))
    setChanged(true)
  }

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
  const Inputs = pictures[calculator.name] ?? Fields
  return (
    <div className={styles.view} data-wide={fields.some(f => f.kind === 'rows' && f.of.length > 2)}>
      <h1>{calculator.question}</h1>
      <Paper component="section" variant="outlined" className={styles.form} aria-label="Given" data-form>
        {!changed && (
          <Quiet sx={{ mb: 1.5 }}>
            An example stands here. Type over it, or{' '}
            <Link component="button" color="primary" onClick={empty}>
              start empty
            </Link>
            .
          </Quiet>
        )}
        <FormProvider {...form}>
          <LiveProblems.Provider value={state.problems}>
            <Inputs fields={fields} draft={draft} />
          </LiveProblems.Provider>
        </FormProvider>
      </Paper>
      <div className={styles.answer}>
        <AnswerPanel worked={outcome.ok ? outcome.value : null} waiting={state.waiting} wrong={state.wrong} />
      </div>
      <Column className={styles.beside}>
        <Row>
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
          {changed && (
            <Button startIcon={<Eraser size={16} aria-hidden />} onClick={empty}>
              Empty
            </Button>
          )}
        </Row>
        {curves.map(curve => (
          <CurveChart key={curve.title} curve={curve} />
        ))}
        {outcome.ok && (
          <Paper variant="outlined" sx={{ p: 2 }}>
            <WorkingView working={outcome.value.working} />
          </Paper>
        )}
        <Quiet>{deference}</Quiet>
      </Column>
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
      {told !== null && (
        <Snackbar open autoHideDuration={6000} onClose={() => setTold(null)} message={told} />
      )}
    </div>
  )
}
