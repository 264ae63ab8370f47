import { cardOf } from '@/core/card/card'
import { cardIn, cardText } from '@/core/card/words'
import { isLanguage, languageKeys } from '@/core/languages'
import { complain, complainOf } from './io'
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
