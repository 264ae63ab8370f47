import * as z from 'zod'
import { type Fault, fail, fault, type Outcome, parseWith } from './outcome'
import type { Sources, Working } from './working'

export interface Worked<O> {
  result: O
  working: Working
}

/**
 * One calculator of the bench: a pure function with a schema on either side.
 * `faultsIn` refuses what a schema of single keys cannot see (division by zero, two keys at odds).
 */
export interface Calculator<I, O> {
  name: string
  /** what a person wants to know */
  question: string
  input: z.ZodType<I>
  output: z.ZodType<O>
  faultsIn?: (input: I) => Fault[]
  compute: (input: I, sources?: Sources<I>) => Worked<O>
}

/** The raw input through schema, cross-checks and computation; a result too large to represent is a fault. */
export function calculate<I, O>(calculator: Calculator<I, O>, raw: unknown): Outcome<Worked<O>> {
  const parsed = parseWith(calculator.input, raw)
  if (!parsed.ok) return parsed
  const faults = calculator.faultsIn?.(parsed.value) ?? []
  if (faults.length) return fail(...faults)
  const worked = calculator.compute(parsed.value)
  const beyond = Object.entries(worked.result as object).find(
    ([, v]) => typeof v === 'number' && !Number.isFinite(v),
  )
  return beyond
    ? fail(fault('$', `gives a ${beyond[0]} too large to represent: check the magnitudes`))
    : { ok: true, value: worked }
}

/** JSON Schema of both sides, as `bin/spillway calc NAME --schema` prints it. */
export const schemasOf = (calculator: Pick<Calculator<unknown, unknown>, 'input' | 'output'>) => ({
  input: z.toJSONSchema(calculator.input, { io: 'input' }),
  output: z.toJSONSchema(calculator.output),
})
