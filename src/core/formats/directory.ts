import { checked, placesOf, type Read, readEntry, wireOf } from '../job/entry'
import { feedOf, spaceName } from '../panel/positions'
import { protectionIds } from '../panel/protection'
import type { Circuit, Panel } from '../panel/schema'
import { cellsOf, csvOf, unescaped } from './cells'

/** The columns of a panel directory as CSV, in order. */
const columns = [
  'position',
  'poles',
  'breaker_A',
  'label',
  'leg',
  'neutral_with',
  'tied_with',
  'tie',
  'protection',
  'wire',
  'type',
  'purpose',
  'tier',
  'picked',
  'traced_by',
  'traced_on',
  'found',
  'died',
] as const

/** The directory of a panel as CSV: a row for each breaker, positions as printed, from the top. */
export function directoryCsv(panel: Panel): string {
  const place = (id: string | undefined) => {
    const circuit = panel.circuits.find(c => c.id === id)
    return circuit ? placeOf(circuit) : ''
  }
  const placeOf = (c: Circuit) => `${spaceName(panel, c.position)}${c.half?.toUpperCase() ?? ''}`
  const rows = panel.circuits.map(c => [
    placeOf(c),
    c.poles,
    c.breakerA,
    c.label,
    feedOf(panel, c),
    c.neutral.kind === 'shared' ? place(c.neutral.with) : c.neutral.kind,
    place(c.tie?.with),
    c.tie?.kind ?? '',
    c.protection,
    c.wire ? `${c.wire.size} ${c.wire.material}` : '',
    c.type ?? '',
    c.purpose,
    c.tier,
    c.picked ? 'yes' : 'no',
    c.traced?.by ?? '',
    c.traced?.on ?? '',
    c.traced?.found ?? '',
    c.traced?.died ?? '',
  ])
  return csvOf([columns, ...rows])
}

/** More rows than any panel has breakers are another file. */
const mostRows = 200

/** Headings as people write them, by the column they mean. */
const headings: Record<string, (typeof columns)[number]> = {
  position: 'position',
  space: 'position',
  no: 'position',
  circuit: 'position',
  poles: 'poles',
  breaker_a: 'breaker_A',
  breaker: 'breaker_A',
  amps: 'breaker_A',
  a: 'breaker_A',
  rating: 'breaker_A',
  label: 'label',
  description: 'label',
  name: 'label',
  neutral_with: 'neutral_with',
  tied_with: 'tied_with',
  tie: 'tie',
  type: 'type',
  purpose: 'purpose',
  protection: 'protection',
  wire: 'wire',
}

/**
 * A directory pasted or read from a file: lines as they are typed, or a table with headings (`position`, `breaker_A` and
 * `label` at least; others of the columns where known). What cannot be read is told line by line.
 */
export function readDirectory(text: string): Read[] {
  const rows = cellsOf(text)
  if (rows.length > mostRows)
    return [
      { text: '', problem: `${rows.length.toLocaleString('en-US')} rows: no panel has so many breakers` },
    ]
  const [first = [], ...rest] = rows
  const known = first.map(
    cell =>
      headings[
        cell
          .toLowerCase()
          .replace(/[\s.()]+/g, '_')
          .replace(/_+$/, '')
      ],
  )
  if (!known.some(Boolean)) return rows.map(cells => readEntry(unescaped(cells.filter(Boolean).join(' '))))
  const missing = (['position', 'breaker_A', 'label'] as const).filter(c => !known.includes(c))
  if (missing.length)
    return [
      {
        text: first.join(', '),
        problem: `the table has no column ${missing.join(' and no ')}: name it in the first row`,
      },
    ]
  return rest.map(cells => {
    const cell = (column: (typeof columns)[number]) => unescaped(cells[known.indexOf(column)] ?? '')
    return readRow(cells.join(', '), cell)
  })
}

function readRow(text: string, cell: (column: (typeof columns)[number]) => string): Read {
  const placed = placesOf(cell('position'))
  const rating = /^(\d{1,3})(?: ?a)?$/i.exec(cell('breaker_A'))
  if (!placed) return { text, problem: `position “${cell('position')}” is no space of a panel` }
  if (!rating) return { text, problem: `breaker “${cell('breaker_A')}” is no rating in amps` }
  const protection = protectionIds.find(p => p === cell('protection').toLowerCase())
  const wire = wireOf(cell('wire').toLowerCase())
  const shared = placesOf(cell('neutral_with'))
  const tied = placesOf(cell('tied_with'))
  return checked(text, {
    ...placed,
    poles: placed.second || cell('poles') === '2' ? 2 : 1,
    breakerA: Number(rating[1]),
    label: cell('label'),
    ...(protection && protection !== 'none' && { protection }),
    ...(wire && { wire }),
    ...(cell('type') && { type: cell('type').slice(0, 20) }),
    ...(cell('purpose') === 'solar' && { purpose: 'solar' }),
    ...(shared && { sharesWith: shared.place }),
    ...(tied && { tiedTo: tied.place, tie: cell('tie') === 'common trip' ? 'common trip' : 'handle' }),
  })
}
