import { writeFileSync } from 'node:fs'
import { traceCsv } from '@/core/formats/outage-csv'
import { readWeather } from '@/core/formats/weather-file'
import { answerOf, thumb } from '@/core/outage/answer'
import { deskFor, simulate } from '@/core/outage/chance'
import { planOf } from '@/core/outage/plan'
import { traceOf } from '@/core/outage/trace'
import { accountRows } from '@/core/outage/words'
import { searchSentence } from '@/core/search/front'
import { search } from '@/core/search/search'
import { spaceOf } from '@/core/search/space'
import { type Stock, stockSchema } from '@/core/search/stock'
import { alone } from '@/core/search/tasks'
import { wishesSchema } from '@/core/search/wishes'
import { catalogue as demoCatalogue } from '@/server/seeds/catalogue'
import { catalogueOf } from './hookup'
import { badInput, complain, complainOf, print, readText } from './io'
import { readJobFile } from './job'

export interface SimulateOptions {
  seed?: string | undefined
  draws?: string | undefined
  step?: string | undefined
  csv?: string | undefined
}

/** A whole number of an option; null where it is none. */
const whole = (text: string | undefined, usual: number): number | null =>
  text === undefined ? usual : /^-?\d{1,9}$/.test(text) ? Number(text) : null

const mostDraws = 100_000

/** Simulates a job file and prints what the screen says; `--csv` writes the mean course with its bands. */
export async function simulateFile(
  file: string,
  { seed, draws, step, csv }: SimulateOptions,
): Promise<number> {
  const job = await readJobFile('simulate', file)
  if (!job) return badInput
  const seedN = whole(seed, 1)
  const drawsN = draws === undefined ? undefined : whole(draws, 1000)
  const stepS = whole(step, 60)
  if (seedN === null) return complain(`simulate: --seed must be a whole number, not ${seed}`)
  if (drawsN === null || (drawsN !== undefined && (drawsN < 1 || drawsN > mostDraws)))
    return complain(`simulate: --draws must be from 1 to ${mostDraws.toLocaleString('en-US')}, not ${draws}`)
  if (stepS === null) return complain(`simulate: --step must be whole seconds, not ${step}`)
  const plan = planOf(job, { stepS })
  if (!plan.ok) return complain(`simulate: ${plan.faults.map(f => `${f.path} ${f.message}`).join('; ')}`)
  const { chance } = simulate(plan.value, { seed: seedN, ...(drawsN !== undefined && { exactly: drawsN }) })
  const mean = traceOf(plan.value, deskFor(plan.value), seedN)
  const answer = answerOf(plan.value, chance, mean)
  if (csv) writeFileSync(csv, traceCsv(plan.value, mean, chance))
  print({
    sentence: answer.headline,
    sureness: answer.sureness,
    ruleOfThumb: thumb(plan.value),
    trips: answer.trips,
    generator: answer.generator,
    hours: chance.hours,
    lasts: chance.lasts,
    served: answer.tiers,
    endFraction: chance.endFraction,
    darkHours: [
      ...plan.value.unserved.map(u => ({ circuit: u.name, mean: plan.value.hours, high: plan.value.hours })),
      ...plan.value.circuits.map((c, n) => ({ circuit: c.name, ...chance.darkH[n] })),
    ],
    account: accountRows(plan.value, mean),
    notAccountedForFraction: Math.max(mean.account.residualFraction, chance.residual),
    assumptions: answer.assumptions,
    draws: chance.draws,
    seed: seedN,
  })
  return 0
}

/** Searches the catalogue for a job file; wishes are options. Prints what the screen says. */
export async function searchFile(
  file: string,
  catalogueFile: string | undefined,
  options: {
    seed?: string | undefined
    draws?: string | undefined
    automatic?: boolean | undefined
    owned?: boolean | undefined
    'no-generator'?: boolean | undefined
    'one-person'?: boolean | undefined
    'most-price'?: string | undefined
    stock?: string | undefined
  },
): Promise<number> {
  const job = await readJobFile('search', file)
  if (!job) return badInput
  const seed = whole(options.seed, 1)
  const draws = whole(options.draws, 200)
  if (seed === null) return complain(`search: --seed must be a whole number, not ${options.seed}`)
  if (draws === null || draws < 10 || draws > 5000)
    return complain(`search: --draws must be from 10 to 5,000, not ${options.draws}`)
  // without a file the catalogue of the demo
  const items = catalogueFile === undefined ? demoCatalogue : await catalogueOf('search', catalogueFile)
  if (!items) return badInput
  const most = options['most-price']
  const stock = options.stock === undefined ? {} : await stockOf(options.stock)
  if (!stock) return badInput
  const wishes = wishesSchema.safeParse({
    fromStock: options.stock !== undefined,
    automatic: options.automatic,
    useOwned: options.owned,
    noGenerator: options['no-generator'],
    onePerson: options['one-person'],
    mostPrice: most === undefined ? undefined : Number(most),
  })
  if (!wishes.success) return complain(`search: --most-price must be dollars, not ${most}`)
  const space = spaceOf(job, items, wishes.data, stock)
  const result = await search(space, alone(space), {
    seed,
    draws,
    progress: (_, what) => process.stderr.write(`${what}\n`),
  })
  print({ sentence: searchSentence(result), ...result })
  return 0
}

/** Counts by id, `{"sluice-22": 2, "sluice-22/expansion": 1}`; null after complaining. */
async function stockOf(file: string): Promise<Stock | null> {
  const read = await readText(file, 1_000_000)
  if ('problem' in read) {
    complain(`search: ${file}: ${read.problem}`)
    return null
  }
  try {
    const parsed = stockSchema.safeParse(JSON.parse(read.text))
    if (parsed.success) return parsed.data
    for (const issue of parsed.error.issues)
      complain(`search: ${file}: ${issue.path.join('.')}: ${issue.message}`)
  } catch {
    complain(`search: ${file}: $: is no JSON; write counts by id, such as {"sluice-22": 2}`)
  }
  return null
}

/** Reads a weather file and prints what it is. */
export async function readWeatherFile(file: string): Promise<number> {
  const text = await readText(file, 8_000_000)
  if ('problem' in text) return complain(`read weather: ${file}: ${text.problem}`)
  const read = readWeather(text.text, file.split('/').at(-1) ?? file)
  if (!read.ok) return complainOf(`read weather: ${file}`, read.faults)
  print(read.value)
  return 0
}
