import { type Edition, editions, factsOfEdition } from './editions'
import type { Working } from './working'

const patternOf = (moved: Readonly<Record<string, string>>) =>
  new RegExp(
    `(?:table )?(?:${Object.keys(moved)
      .sort((a, b) => b.length - a.length)
      .map(a => a.replace(/[.()]/g, '\\$&'))
      .join('|')})(?!\\d|\\()`,
    'g',
  )
const patterns = new Map(editions.map(e => [e, patternOf(factsOfEdition(e).moved)]))

/** Whether the edition numbers every article as that of 2020 does, by whose numbers ours are written. */
const asWritten = (edition: Edition) => !Object.keys(factsOfEdition(edition).moved).length

/** A text whose articles are cited as the edition has them; written by the numbers of 2020. What did not move stands where it stood. */
export function inEdition(text: string, edition: Edition): string {
  const pattern = patterns.get(edition)
  if (!pattern || asWritten(edition) || !/\d{3}\.\d/.test(text)) return text
  const { moved } = factsOfEdition(edition)
  return text.replace(pattern, found => moved[found.replace('table ', '')] ?? found)
}

/** An article as the editions have it: one line where they agree, else one for each. */
export function inEveryEdition(article: string): string[] {
  const lines = editions.map(e => inEdition(article, e))
  return new Set(lines).size > 1 ? lines.map((line, n) => `${editions[n]}: ${line}`) : [article]
}

/** A working, and those beneath it, with its articles by the edition. */
export function workingIn<W extends Working | undefined>(working: W, edition: Edition): W {
  if (!working || asWritten(edition)) return working
  const say = (text: string) => inEdition(text, edition)
  return {
    ...working,
    formula: working.formula.map(say),
    ...(working.inputs && {
      inputs: working.inputs.map(i => (i.working ? { ...i, working: workingIn(i.working, edition) } : i)),
    }),
    ...(working.rows && { rows: working.rows.map(r => ({ ...r, table: say(r.table) })) }),
    references: working.references.map(say),
    ...(working.notes && { notes: working.notes.map(say) }),
  }
}
