import { distance } from 'fastest-levenshtein'
import type { Load } from '../loads/load'
import type { Season } from '../loads/season'
import { loadFromTypical, type Typical } from '../loads/typical'
import { sentenceStart } from '../units/format'
import type { Want } from './brief'
import { answeredOf, likeliest, type Thing, type ThingOption, thingOf, things } from './things'

/** What was typed or said, understood: a thing with how many, and what was said of it. */
export interface Understood {
  count: number
  name: string
  /** a row of `things`, or of the library */
  thing: string | null
  typical: string | null
  answers: Record<string, string>
}

const numbers: Record<string, number> = {
  a: 1, an: 1, one: 1, two: 2, three: 3, four: 4, five: 5, six: 6, seven: 7, eight: 8, nine: 9, ten: 10, eleven: 11, twelve: 12, both: 2, couple: 2,
} // biome-ignore format: read as one line

const small = new Set([
  'the',
  'of',
  'my',
  'our',
  'their',
  'some',
  'for',
  'with',
  'in',
  'and',
  'x',
  '×',
  'few',
  'all',
  'any',
  'old',
  'new',
  'big',
  'please',
  'keep',
  'run',
  'running',
  'must',
  'need',
  'want',
  'house',
  'on',
])

/** `fridges` → `fridge`; short words and those that end so by nature are left. */
const single = (word: string) =>
  word.length > 3 && word.endsWith('s') && !/(ss|us|is)$/.test(word) ? word.slice(0, -1) : word

const wordsOf = (text: string): string[] =>
  text
    .toLowerCase()
    .split(/[^a-z0-9/½¼¾]+/)
    .filter(w => w && !small.has(w))
    .map(single)

/** How well a typed word answers to one of these: 2 whole, 1 begun or mistyped by one letter, 0 not. */
function answersTo(word: string, words: readonly string[]): number {
  if (words.includes(word)) return 2
  if (word.length >= 3 && words.some(w => w.startsWith(word))) return 1
  return word.length >= 5 && words.some(w => w.length >= 4 && distance(w, word) <= 1) ? 1 : 0
}

/** The sum over all typed words; 0 where one of them is not answered. */
function scoreOf(typed: readonly string[], words: readonly string[]): number {
  let sum = 0
  for (const word of typed) {
    const one = answersTo(word, words)
    if (!one) return 0
    sum += one
  }
  return sum / (typed.length + 0.05 * words.length)
}

interface Candidate extends Omit<Understood, 'count'> {
  score: number
}

const ofThing = ({ id, name, options }: Thing, option?: ThingOption): Omit<Candidate, 'score'> => ({
  name,
  thing: id,
  typical: null,
  answers: option && options.length > 1 ? { kind: option.id } : {},
})

/** What a text without its number may mean, the likeliest first: things, things with their answer, then rows of the library. */
function candidates(typed: readonly string[], library: readonly Typical[]): Candidate[] {
  const found: Candidate[] = []
  for (const thing of things) {
    const own = wordsOf(`${thing.name} ${thing.words}`)
    const plain = scoreOf(typed, own)
    if (plain)
      found.push({ ...ofThing(thing), score: plain + (scoreOf(typed, wordsOf(thing.name)) ? 0.5 : 0.2) })
    else if (thing.options.length > 1)
      for (const option of thing.options) {
        if (!typed.some(w => answersTo(w, own))) continue
        const label = wordsOf(option.label)
        const score = scoreOf(typed, [...own, ...label])
        const said = typed.filter(w => answersTo(w, label)).length
        if (score) found.push({ ...ofThing(thing, option), score: score + 0.5 * said + 0.5 * option.share })
      }
  }
  for (const t of library) {
    const score = scoreOf(typed, wordsOf(`${t.name} ${t.words}`))
    if (score) found.push({ name: t.name, thing: null, typical: t.id, answers: {}, score })
  }
  return found.sort((a, b) => b.score - a.score || a.name.localeCompare(b.name))
}

function counted(text: string): { count: number; rest: string } {
  const match = /^\s*(?:(\d{1,3})\s*[x×]?|([a-z]+))\s+(.+)$/i.exec(text)
  const [, digits, word = '', rest = ''] = match ?? []
  const count = digits ? Number(digits) : numbers[word.toLowerCase()]
  return match && count !== undefined && count >= 1 ? { count, rest } : { count: 1, rest: text }
}

/** What may be meant by a text, for whoever chooses while typing; the likeliest first. */
export function suggested(text: string, library: readonly Typical[], most = 8): Understood[] {
  const { count, rest } = counted(text)
  const typed = wordsOf(rest)
  if (!typed.length) return []
  return candidates(typed, library)
    .slice(0, most)
    .map(({ score: _, ...c }) => ({ ...c, count: Math.min(12, count) }))
}

/**
 * Everything that is asked for in a text: apart by commas, semicolons, lines, or “and”. What no library knows keeps its words, so that nothing that was said is lost.
 */
export function understood(text: string, library: readonly Typical[]): Understood[] {
  const one = (part: string): Understood | undefined => {
    const [likeliest] = suggested(part, library, 1)
    return likeliest && inTheirWords(likeliest, counted(part).rest)
  }
  return text
    .split(/[,;\n]+/)
    .map(p => p.trim())
    .filter(Boolean)
    .flatMap(part => {
      const whole = one(part)
      if (whole) return [whole]
      const pieces = part.split(/\s+(?:and|&|plus)\s+/i).filter(Boolean)
      return pieces.map(
        piece =>
          one(piece) ?? {
            count: Math.min(12, counted(piece).count),
            name: sentenceStart(counted(piece).rest.trim()).slice(0, 60),
            thing: null,
            typical: null,
            answers: {},
          },
      )
    })
}

/** What people call it stays, where the name that we have for it says something else. */
function inTheirWords(said: Understood, text: string): Understood {
  const names = wordsOf(said.name)
  return wordsOf(text).every(w => answersTo(w, names))
    ? said
    : { ...said, name: sentenceStart(text.trim()).slice(0, 60) }
}

export interface Making {
  library: readonly { typical: Typical; firms: boolean }[]
  /** what holds while nobody said a season: spring, between the two */
  season: Season | undefined
  /** a new id each time */
  newId: () => string
}

/** The request for the plate of a load that no circuit carries yet; and once one does. */
export const wantPlate = (loadId: string) => `want:${loadId}`

const named = (name: string, count: number) => (count > 1 ? `${count} × ${name}` : name).slice(0, 60)

/** A want with what it draws, of what was understood. */
export function wantOf(said: Understood, making: Making): Want {
  const { newId } = making
  const want: Want = {
    id: newId(),
    name: named(said.name, said.count),
    circuitIds: [],
    ...(said.count > 1 && { count: said.count }),
    ...((said.thing ?? said.typical) && { thing: said.thing ?? `library ${said.typical}` }),
    ...(Object.keys(said.answers).length && { answers: said.answers }),
  }
  const loads = loadsFor(want, typicalsOf(said.thing, said.typical, said.answers), making)
  return loads.length ? { ...want, loads } : want
}

const typicalsOf = (
  thingId: string | null,
  typical: string | null,
  answers: Readonly<Record<string, string>>,
): readonly string[] => {
  const thing = thingOf(thingId ?? undefined)
  return thing ? (answeredOf(thing, answers) ?? likeliest(thing)).typical : typical ? [typical] : []
}

type WantLoads = NonNullable<Want['loads']>

/** Loads of a want by these entries of the library, as many as it counts; 12 at most. */
export function loadsFor(
  want: Pick<Want, 'count'>,
  typical: readonly string[],
  { library, season, newId }: Making,
): WantLoads {
  const entries = Array.from({ length: want.count ?? 1 }, () => typical)
    .flat()
    .flatMap(id => library.find(e => e.typical.id === id) ?? [])
    .slice(0, 12)
  return entries.map(({ typical: t, firms }, n) => {
    // as between the seasons while none is said: so that one that is said later counts
    const load = loadFromTypical(t, newId(), season ?? 'spring', firms)
    const before = entries.slice(0, n).filter(e => e.typical === t).length
    return {
      volts: t.volts,
      load: before ? { ...load, name: `${load.name} ${before + 1}`.slice(0, 60) } : load,
    }
  })
}

/** The want with one answer about it, and what it draws then; null takes the answer back. What a circuit carries keeps its loads. */
export function answered(want: Want, answer: string | null, making: Making): Want {
  const { answers: _, ...rest } = want
  const answers: Record<string, string> = answer === null ? {} : { kind: answer }
  const now: Want = { ...rest, ...(answer !== null && { answers }) }
  if (want.circuitIds.length) return now
  return { ...now, loads: loadsFor(want, typicalsOf(want.thing ?? null, null, answers), making) }
}

/** What somebody knows of a thing that no library has, or knows better: watts while it runs, and hours of a day. */
export function ownLoad(
  want: Want,
  W: number,
  hoursPerDay: number,
  volts: 120 | 240,
  newId: () => string,
): Want {
  const share = Math.min(1, hoursPerDay / 24)
  const load: Load = {
    id: newId(),
    name: want.name,
    runningW: { value: W, from: 'job' },
    powerFactor: { value: 1, from: 'assumed' },
    dutyFraction: { value: share, from: 'job' },
    idleW: { value: 0, from: 'assumed' },
    nature: 'plain',
    byHand: false,
    needsBond: false,
  }
  const { answers: _, thing: __, ...rest } = want
  return { ...rest, loads: [{ volts, load }] }
}
