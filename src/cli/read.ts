import { once } from 'node:events'
import { greenButtonReader } from '@/core/formats/green-button'
import { intervalCsvReader } from '@/core/formats/interval-csv'
import { type MeterReader, meterReader } from '@/core/formats/meter-csv'
import { guessMeterFormat } from '@/core/formats/meter-guess'
import { type Intervals, intervalAt } from '@/core/loads/intervals'
import { segment } from '@/core/loads/segment'
import { fail, fault, type Outcome, ok } from '@/core/outcome'
import { isZone } from '@/core/zone-clock'
import { complain, complainOf, open, print } from './io'

const kinds = ['green-button', 'interval-csv', 'meter-log', 'weather'] as const

/** Reads a file of another kind and prints what it holds: `read green-button FILE`; a utility’s table was written by the clocks of `zone`. */
export async function read(
  what: string | undefined,
  file: string | undefined,
  zone = 'America/New_York',
): Promise<number> {
  const kind = kinds.find(k => k === what)
  if (!kind) return complain(`read: no such kind: ${what ?? '(none given)'}; there are: ${kinds.join(', ')}`)
  if (!file) return complain(`read ${kind}: give a file, or - for standard input`)
  if (!isZone(zone))
    return complain(
      `read ${kind}: --zone: no clocks of ${zone} are known: give a name such as America/New_York`,
    )
  try {
    if (kind === 'weather') return await (await import('./outage')).readWeatherFile(file)
    if (kind === 'meter-log') return await readLog(file)
    const reader = kind === 'green-button' ? greenButtonReader() : intervalCsvReader(zone)
    const outcome = await through(file, reader.write, reader.end)
    if (!outcome.ok) return complainOf(`read ${kind}: ${file}`, outcome.faults)
    await printPieces(outcome.value)
    return 0
  } catch (error) {
    return complain(
      `read ${kind}: ${file}: cannot be read: ${error instanceof Error ? error.message : String(error)}`,
    )
  }
}

/** Gives a file to a reader piece by piece. */
async function through<T>(
  file: string,
  write: (text: string) => Outcome<unknown>,
  end: () => Outcome<T>,
): Promise<Outcome<T>> {
  const decoder = new TextDecoder('utf-8')
  for await (const part of open(file)) {
    const taken = write(decoder.decode(Buffer.from(part), { stream: true }))
    if (!taken.ok) return taken
  }
  return end()
}

/** A meter's series by the columns that are recognised, told apart; what was unsure goes to standard error. */
async function readLog(file: string): Promise<number> {
  let head = ''
  let reader: MeterReader | null = null
  const usualVolts = 120
  const begin = (): Outcome<unknown> => {
    const guess = guessMeterFormat(head, usualVolts)
    if (!guess.ok) return guess
    for (const unsure of guess.value.unsure)
      process.stderr.write(`spillway: read meter-log: ${file}: ${unsure}\n`)
    reader = meterReader(guess.value.format)
    return reader.write(head)
  }
  const outcome = await through(
    file,
    text => {
      if (reader) return reader.write(text)
      head += text
      return head.length < 50_000 ? ok(null) : begin()
    },
    (): ReturnType<MeterReader['end']> => {
      const begun = reader ? ok(null) : begin()
      if (!begun.ok) return begun
      return reader ? reader.end() : fail(fault('$', 'is empty'))
    },
  )
  if (!outcome.ok) return complainOf(`read meter-log: ${file}`, outcome.faults)
  const { series, warnings } = outcome.value
  print({ readings: series.tS.length, ...segment(series), warnings })
  return 0
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
