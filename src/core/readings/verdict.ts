import * as z from 'zod'
import { labelled } from '../field'

/** What readings can mean: a name, a sentence, what to do. */
export interface ReadingVerdict {
  name: string
  meaning: string
  next: string
}

/** The output of a calculator that judges readings: one of its verdicts, with its words. */
export function verdictOutput<V extends string>(verdicts: Readonly<Record<V, ReadingVerdict>>) {
  const keys = Object.keys(verdicts) as [V, ...V[]]
  return z.strictObject({
    verdict: labelled(z.enum(keys), 'Verdict', 'text', {
      names: Object.fromEntries(keys.map(key => [key, verdicts[key].name])),
    }),
    meaning: labelled(z.string(), 'Meaning'),
    next: labelled(z.string(), 'What to do next'),
  })
}
