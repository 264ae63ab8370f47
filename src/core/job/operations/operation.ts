import type { Draft } from 'immer'
import * as z from 'zod'
import type { Fault } from '../../outcome'
import { line } from '../../quantity'
import type { Job } from '../schema'

/** What an operation does to a draft of the job: faults where what it names is gone, or cannot be. */
export type Change = (job: Draft<Job>) => Fault[] | void

/** One way a job changes: what it says, what it does, and the line of the history that tells of it. */
export interface Operation<N extends string, Shape extends z.ZodRawShape> {
  op: N
  schema: z.ZodObject<{ op: z.ZodLiteral<N> } & Shape, z.core.$strict>
  change: (operation: { op: string }) => Change
  describe: (before: Job, operation: { op: string }) => string
}

/** An operation by its name, with schema, what it does and how it is told in one place. */
export function operation<const N extends string, Shape extends z.ZodRawShape>(
  op: N,
  shape: Shape,
  {
    apply,
    describe,
  }: {
    apply: (said: z.infer<z.ZodObject<Shape>>) => Change
    describe: (before: Job, said: z.infer<z.ZodObject<Shape>>) => string
  },
): Operation<N, Shape> {
  const isThis = (o: { op: string }): o is { op: N } & z.infer<z.ZodObject<Shape>> => o.op === op
  const other = () => new Error(`${op} was given another operation`)
  return {
    op,
    schema: z.strictObject({ op: z.literal(op), ...shape }),
    change: o => {
      if (!isThis(o)) throw other()
      return apply(o)
    },
    describe: (before, o) => {
      if (!isThis(o)) throw other()
      return describe(before, o)
    },
  }
}

export const idSchema = line(40, 1)

/** Keys to leave out again. */
export const clearing = <const K extends readonly [string, ...string[]]>(keys: K) =>
  z.array(z.enum(keys)).max(40).optional()

export const assign = <T extends object>(target: T, facts: Partial<T>) => {
  for (const [key, value] of Object.entries(facts)) if (value !== undefined) Reflect.set(target, key, value)
}

export const put = <T extends { id: string }>(list: readonly T[] | undefined, item: T): T[] =>
  list?.some(l => l.id === item.id) ? list.map(l => (l.id === item.id ? item : l)) : [...(list ?? []), item]

/** A key of the document as words. */
export const words = (key: string) =>
  key.replace(/(A|In|W|Id)$/, '').replace(/[A-Z]/g, capital => ` ${capital.toLowerCase()}`)
