import { legOf, positionText, spaceNamed } from './positions'
import { type Panel, panelSchema } from './schema'

/** The legs of a panel's rows, one by one, from the top. */
export const rowsOf = (panel: Panel, rows: number) =>
  Array.from({ length: rows }, (_, row) => legOf(panel, 2 * row + 1))

/** `1 2 2 1`: a figure for each row. */
export const readLegs = (rows: number) => (text: string) => {
  const legs = [...text.replace(/[\sL,]/gi, '')].map(c => (c === '1' ? 'L1' : c === '2' ? 'L2' : null))
  const known = legs.filter(l => l !== null)
  return known.length === rows && legs.length === rows
    ? { value: known }
    : { problem: `must be ${rows} figures, 1 or 2 for each row; this has ${legs.length}` }
}

/** Breaker types as on a sticker, commas between. */
export const readTypes = (text: string) => {
  const types = text
    .split(',')
    .map(t => t.trim())
    .filter(Boolean)
  const parsed = panelSchema.shape.breakerTypes.safeParse(types)
  return parsed.success
    ? { value: parsed.data }
    : { problem: 'must be types of at most 20 characters, commas between' }
}

/** Spaces as people write them; `0` for none. */
export const spacesText = (panel: Panel, spaces: readonly number[]) =>
  spaces.length ? spaces.map(s => positionText(panel, { position: s, poles: 1 })).join(', ') : '0'

/** `17-30`, `17, 19` by the printed numbers; `0` for none. */
export const readSpaces =
  (panel: Panel) =>
  (text: string): { value: number[] } | { problem: string } => {
    if (text.trim() === '0') return { value: [] }
    const names = text.split(/[\s,]+/).filter(Boolean)
    const spaces = names.flatMap(name => {
      const [from = 0, to = from] = name.split('-').map(Number)
      // one beyond the panel is enough to see that it is beyond
      const length = Math.min(Math.max(0, to - from + 1), panel.spaces + 1)
      return Array.from({ length }, (_, i) => spaceNamed(panel, from + i))
    })
    return spaces.length && spaces.every(s => Number.isInteger(s) && s >= 1 && s <= panel.spaces)
      ? { value: [...new Set(spaces)].sort((a, b) => a - b) }
      : { problem: `must be spaces of this panel, such as 17-30 or 17, 19; it has ${panel.spaces}` }
  }
