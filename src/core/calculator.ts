import * as z from 'zod'
import type { Curve } from './curve'
import { fieldsOf, inputsOf } from './field'
import { type Fault, fail, fault, type Outcome, parseWith } from './outcome'
import { quantity } from './units/format'
import type { Sources, Working, WorkingValue } from './working'

/** A result with the sentence that answers the question and the trace behind it. */
export interface Worked<O> {
  result: O
  answer: string
  /** what is wrong with what was entered, though it can be computed: a sentence each, with what helps */
  findings: string[]
  /** what to do with it */
  next?: string
  working: Working
}

export const topics = ['wiring', 'loads', 'source', 'readings'] as const
export type Topic = (typeof topics)[number]

/** What an `explain` gives; the inputs of the working come from the schema unless it lists its own. */
interface Explanation {
  answer: string
  findings?: string[]
  next?: string
  working: Omit<Working, 'inputs'> & { inputs?: WorkingValue[] }
}

interface Definition<I extends object, O> {
  name: string
  topic: Topic
  /** what a person wants to know */
  question: string
  /** other ways of asking, and the trade's words for it */
  asked: readonly string[]
  input: z.ZodType<I>
  output: z.ZodType<O>
  /** an input with an answer worth seeing */
  example: object
  /** refuses what a schema of single keys cannot see (division by zero, two keys at odds) */
  faultsIn?: (input: I) => Fault[]
  /** the formula alone */
  solve: (input: I) => O
  /** the answer in a sentence, and the trace */
  explain: (input: I, result: O, sources: Sources<I> | undefined) => Explanation
  /** where a curve teaches: what the result does when one input moves */
  curves?: (input: I, result: O) => Curve[]
}

/** One calculator of the bench: a pure function with a schema on either side. */
export interface Calculator<I extends object, O> extends Definition<I, O> {
  compute: (input: I, sources?: Sources<I>) => Worked<O>
}

export function calculator<I extends object, O>(definition: Definition<I, O>): Calculator<I, O> {
  return {
    ...definition,
    compute: (input, sources) => {
      const result = definition.solve(input)
      const { working, findings = [], ...said } = definition.explain(input, result, sources)
      const inputs = working.inputs ?? inputsOf(fieldsOf(definition.input, input), input, sources, quantity)
      return { result, ...said, findings, working: { ...working, inputs } }
    },
  }
}

function beyond(value: unknown, path: string): string | null {
  if (typeof value === 'number') return Number.isFinite(value) ? null : path
  if (value === null || typeof value !== 'object') return null
  for (const [key, inner] of Object.entries(value)) {
    const found = beyond(inner, key)
    if (found) return Array.isArray(value) ? path : found
  }
  return null
}

/** The raw input, checked and computed by `run`; a result too large to represent is a fault. */
function checked<I extends object, O, R>(
  definition: Definition<I, O>,
  raw: unknown,
  run: (input: I) => { result: O; value: R },
): Outcome<R> {
  const parsed = parseWith(definition.input, raw)
  if (!parsed.ok) return parsed
  const faults = definition.faultsIn?.(parsed.value) ?? []
  if (faults.length) return fail(...faults)
  const { result, value } = run(parsed.value)
  const key = beyond(result, 'result')
  return key
    ? fail(fault('$', `gives no ${key} that can be written as a number: check the magnitudes`))
    : { ok: true, value }
}

/** Result, answer and working from raw input, or every fault with its path. */
export const calculate = <I extends object, O>(
  calculator: Calculator<I, O>,
  raw: unknown,
): Outcome<Worked<O>> =>
  checked(calculator, raw, input => {
    const worked = calculator.compute(input)
    return { result: worked.result, value: worked }
  })

/** The result alone: what the command line streams. */
export const solve = <I extends object, O>(calculator: Calculator<I, O>, raw: unknown): Outcome<O> =>
  checked(calculator, raw, input => {
    const result = calculator.solve(input)
    return { result, value: result }
  })

/** The curves of a valid input; none while the input is not. */
export function curvesOf<I extends object, O>(calculator: Calculator<I, O>, raw: unknown): Curve[] {
  const drawn = checked(calculator, raw, input => {
    const result = calculator.solve(input)
    return { result, value: calculator.curves?.(input, result) ?? [] }
  })
  return drawn.ok ? drawn.value : []
}

/** JSON Schema of both sides, as `bin/spillway calc NAME --schema` prints it. */
export const schemasOf = (calculator: { input: z.ZodType; output: z.ZodType }) => ({
  input: z.toJSONSchema(calculator.input, { io: 'input' }),
  output: z.toJSONSchema(calculator.output),
})
