import type { Edition } from './job/schema'
import type { Working } from './working'

/**
 * Articles that moved between editions of the National Electrical Code, by their number of 2020. Everything else that is cited
 * stands where it stood.
 */
const moved: Record<2017 | 2023, Readonly<Record<string, string>>> = {
  2017: {
    '310.16': 'table 310.15(B)(16)',
    '310.15(B)(1)': 'table 310.15(B)(2)(a)',
    '310.15(C)(1)': 'table 310.15(B)(3)(a)',
    '310.15(E)': '310.15(B)(5)',
    '702.5(A)': '702.5',
    '705.12(B)(3)(2)': '705.12(B)(2)(3)(b)',
    '705.12(B)(3)': '705.12(B)(2)(3)',
  },
  2023: {
    '705.12(B)(3)(2)': '705.12(B)(2)',
    '705.12(B)(3)': '705.12(B)',
  },
}

const cited = (list: Readonly<Record<string, string>>) =>
  new RegExp(
    `(?:table )?(?:${Object.keys(list)
      .sort((a, b) => b.length - a.length)
      .map(a => a.replace(/[.()]/g, '\\$&'))
      .join('|')})(?!\\d|\\()`,
    'g',
  )
const patterns = { 2017: cited(moved[2017]), 2023: cited(moved[2023]) }

/** A text whose articles are cited as the edition has them; written by the numbers of 2020. */
export function inEdition(text: string, edition: Edition): string {
  if (edition === 2020 || !/\d{3}\.\d/.test(text)) return text
  const list = moved[edition]
  return text.replace(patterns[edition], found => list[found.replace('table ', '')] ?? found)
}

/** A working, and those beneath it, with its articles by the edition. */
export function workingIn<W extends Working | undefined>(working: W, edition: Edition): W {
  if (edition === 2020 || !working) return working
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
