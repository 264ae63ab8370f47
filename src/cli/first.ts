import * as z from 'zod'
import { conditionsOf } from '@/core/ask/outage-asked'
import { firstAnswer, surgesOf } from '@/core/first/answer'
import { callJob, callSchema } from '@/core/first/call'
import { firstDesigns } from '@/core/first/designs'
import { designsText } from '@/core/first/designs-text'
import { library } from '@/core/loads/library'
import { parseWith } from '@/core/outcome'
import { catalogue } from '@/server/seeds/catalogue'
import { complain, complainOf, print, readText } from './io'

const largestCallBytes = 200_000

/** The first answer to a call that stands in a file, as the screen gives it, with designs of the demo's catalogue. */
export async function firstAnswerOfFile(file: string | undefined, schema: boolean): Promise<number> {
  if (schema) {
    print(z.toJSONSchema(callSchema, { unrepresentable: 'any', io: 'input' }))
    return 0
  }
  if (!file) return complain('first-answer: give a file of what must live; --schema tells its form')
  const read = await readText(file, largestCallBytes)
  if ('problem' in read) return complain(`first-answer: ${file}: ${read.problem}`)
  let raw: unknown
  try {
    raw = JSON.parse(read.text)
  } catch {
    return complain(`first-answer: ${file}: $: is no JSON; write {"wants": ["well pump"], "hours": 24}`)
  }
  const parsed = parseWith(callSchema, raw)
  if (!parsed.ok) return complainOf(`first-answer: ${file}`, parsed.faults)
  const made = callJob(parsed.value, library)
  if (!made.ok) return complainOf(`first-answer: ${file}`, made.faults)
  const job = made.value
  const found = await firstDesigns(job, catalogue)
  const [cheapest] = found.designs
  const { working, ...answer } = firstAnswer(
    job,
    {
      library: library.map(typical => ({ typical, firms: false })),
      season: conditionsOf(job).season,
      newId: () => 'a load',
    },
    {
      surgesVA: surgesOf(catalogue),
      ...(cheapest && { priceShare: (cheapest.price.high - cheapest.price.low) / cheapest.price.high }),
    },
  )
  print({
    wants: job.brief.wants.map(w => ({ name: w.name, loads: w.loads?.map(l => l.load.name) ?? [] })),
    ...answer,
    designs: found.designs.map(({ take: _, ...d }) => d),
    said: designsText(found),
    working,
  })
  return 0
}
