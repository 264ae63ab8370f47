import { createHash } from 'node:crypto'
import { writeFileSync } from 'node:fs'
import { cardOf } from '@/core/card/card'
import { cardIn, cardText } from '@/core/card/words'
import { packOf, standsAgainst } from '@/core/handover/pack'
import { isLanguage, languageKeys } from '@/core/languages'
import { packPdf } from '@/server/pdf/pack'
import { complain, complainOf, print } from './io'
import { readJobFile } from './job'

const ways = { battery: 'to', utility: 'back' } as const

/** The switch-over card of a job, line by line. */
export async function cardOfFile(file: string, to: string | undefined, language = 'en'): Promise<number> {
  if (to !== undefined && !(to in ways)) return complain(`card: --to takes battery or utility, not ${to}`)
  if (!isLanguage(language))
    return complain(`card: --language takes ${languageKeys.join(' or ')}, not ${language}`)
  const job = await readJobFile('card', file)
  if (!job) return 2
  const card = cardOf(job)
  if (!card.ok) return complainOf(`card: ${file}`, card.faults)
  const said = cardIn(language, card.value)
  const only = to === undefined ? undefined : ways[to as keyof typeof ways]
  process.stdout.write(`${cardText(said, only).join('\n')}\n`)
  return said.wrong.length ? 1 : 0
}

/** The pack of a hand-over as a document: what is kept beside a job, its photographs, is missing in a file of it. */
export async function handOverOfFile(file: string, pdf: string | undefined): Promise<number> {
  if (pdf === undefined) return complain('handover: give --pdf FILE')
  const job = await readJobFile('handover', file)
  if (!job) return 2
  const pack = packOf(job, {
    n: 1,
    firm: '',
    on: new Date().toISOString().slice(0, 10),
    revision: 1,
    estimates: [],
    jobSha256: createHash('sha256')
      .update(JSON.stringify(job, null, 2))
      .digest('hex'),
  })
  const parts = { estimates: [], photo: async () => null, progress: async () => {} }
  writeFileSync(pdf, await packPdf(job, pack, parts))
  print({ ...pack, against: standsAgainst(pack) })
  return 0
}
