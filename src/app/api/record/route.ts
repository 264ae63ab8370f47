import Papa from 'papaparse'
import { handle } from '@/server/http/handle'
import { currentActor } from '@/server/people/actor'
import { aboutText, note, type RecordEntry, recorded, wholeRecord } from '@/server/people/record'

const columns = ['at', 'who', 'what', 'about', 'address', 'browser'] as const
const cells = (e: RecordEntry) => [
  e.at,
  e.who,
  recorded[e.what] ?? e.what,
  aboutText(e.about),
  e.address ?? '',
  e.browser ?? '',
]
// a cell that a spreadsheet would reckon with is text
const lines = (rows: readonly (readonly string[])[]) =>
  `${Papa.unparse([...rows], { escapeFormulae: true })}\r\n`

/** The whole record as CSV, the oldest first; that it was taken out is written down. */
export const GET = handle(async () => {
  const actor = await currentActor()
  await note(actor, 'exported', { what: 'the record' })
  const bytes = new TextEncoder()
  const body = new ReadableStream<Uint8Array>({
    async start(controller) {
      controller.enqueue(bytes.encode(lines([columns])))
      for await (const entries of wholeRecord(actor))
        controller.enqueue(bytes.encode(lines(entries.map(cells))))
      controller.close()
    },
  })
  return new Response(body, {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': 'attachment; filename="record.csv"',
    },
  })
})
