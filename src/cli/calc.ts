import { once } from 'node:events'
import { createInterface } from 'node:readline'
import { schemasOf, solve } from '@/core/calculator'
import { calculators, nearestNames } from '@/core/calculators'
import { type Fault, fault } from '@/core/outcome'
import { badInput, complain, complainOf, open, print, readText } from './io'

type LineResult = { ok: true; result: unknown } | { ok: false; faults: Fault[] }
type Named = (typeof calculators)[number]

function answer(calculator: Named, text: string): LineResult {
  let raw: unknown
  try {
    raw = JSON.parse(text)
  } catch (error) {
    return { ok: false, faults: [fault('$', `is not JSON: ${error instanceof Error ? error.message : ''}`)] }
  }
  const outcome = solve(calculator, raw)
  return outcome.ok ? { ok: true, result: outcome.value } : outcome
}

interface Options {
  schema?: boolean
  lines?: string
  file?: string
}

export async function calc(name: string | undefined, { schema, lines, file }: Options): Promise<number> {
  if (!name) {
    const width = Math.max(...calculators.map(c => c.name.length))
    for (const c of calculators) process.stdout.write(`${c.name.padEnd(width)}  ${c.question}\n`)
    return 0
  }
  const calculator = calculators.find(c => c.name === name)
  if (!calculator) return complain(`${name}: no such calculator; nearest: ${nearestNames(name).join(', ')}`)
  if (schema) {
    print(schemasOf(calculator))
    return 0
  }
  if (lines !== undefined) return answerLines(calculator, lines)
  if (!file) return complain(`${name}: give a FILE, - for standard input, --lines FILE or --schema`)
  const read = await readText(file, 50_000_000)
  if ('problem' in read) return complain(`${name}: ${file}: ${read.problem}`)
  const result = answer(calculator, read.text)
  if (!result.ok) return complainOf(name, result.faults)
  print(result.result)
  return 0
}

const flushAt = 65_536

/** Streams: memory stays flat however many lines come. Every line has its answer, a blank one too. */
async function answerLines(calculator: Named, file: string): Promise<number> {
  let status = 0
  let pending = ''
  const input = open(file)
  const failed = new Promise<never>((_, reject) => input.once('error', reject))
  const work = async () => {
    for await (const text of createInterface({ input, crlfDelay: Infinity })) {
      const result = answer(calculator, text)
      if (!result.ok) status = badInput
      const said = result.ok ? result.result : { error: result.faults.map(f => `${f.path}: ${f.message}`) }
      pending += `${JSON.stringify(said)}\n`
      if (pending.length > flushAt) {
        const room = process.stdout.write(pending)
        pending = ''
        if (!room) await once(process.stdout, 'drain')
      }
    }
    process.stdout.write(pending)
  }
  try {
    await Promise.race([work(), failed])
  } catch (error) {
    return complain(
      `${calculator.name}: ${file}: cannot be read: ${error instanceof Error ? error.message : String(error)}`,
    )
  }
  return status
}
