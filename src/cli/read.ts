import { once } from 'node:events'
import { greenButtonReader } from '@/core/formats/green-button'
import { type Intervals, intervalAt } from '@/core/loads/intervals'
import type { Outcome } from '@/core/outcome'
import { complain, complainOf, open } from './io'

/** Reads a file of another kind and prints what it holds: `read green-button FILE`. */
export async function read(what: string | undefined, file: string | undefined): Promise<number> {
  if (what !== 'green-button')
    return complain(`read: no such kind: ${what ?? '(none given)'}; there is: green-button`)
  if (!file) return complain('read green-button: give a file, or - for standard input')
  let outcome: Outcome<Intervals>
  try {
    outcome = await readStream(file)
  } catch (error) {
    return complain(
      `read green-button: ${file}: cannot be read: ${error instanceof Error ? error.message : String(error)}`,
    )
  }
  if (!outcome.ok) return complainOf(`read green-button: ${file}`, outcome.faults)
  await printPieces(outcome.value)
  return 0
}

async function readStream(file: string): Promise<Outcome<Intervals>> {
  const reader = greenButtonReader()
  const decoder = new TextDecoder('utf-8')
  for await (const part of open(file)) {
    const taken = reader.write(decoder.decode(Buffer.from(part), { stream: true }))
    if (!taken.ok) return taken
  }
  return reader.end()
}

/** JSON in pieces, so that a year of many meters is never one string. */
async function printPieces({ meters, warnings }: Intervals) {
  const write = async (text: string) => {
    if (!process.stdout.write(text)) await once(process.stdout, 'drain')
  }
  await write('{"meters":[')
  for (const [m, meter] of meters.entries()) {
    const { id, flow } = meter
    await write(`${m ? ',' : ''}${JSON.stringify({ id, flow }).slice(0, -1)},"intervals":[\n`)
    const step = 2000
    const count = meter.startS.length
    for (let from = 0; from < count; from += step) {
      const lines: string[] = []
      for (let i = from; i < Math.min(count, from + step); i++)
        lines.push(JSON.stringify(intervalAt(meter, i)))
      await write(`${from ? ',\n' : ''}${lines.join(',\n')}`)
    }
    await write('\n]}')
  }
  await write(`],"warnings":${JSON.stringify(warnings)}}\n`)
}
