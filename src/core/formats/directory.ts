import type { Circuit, Job } from '../job/schema'
import { checked, type Read, readEntry, wireOf } from '../panel/entry'
import { feedOf } from '../panel/positions'
import { cellsOf, csvOf, unescaped } from './cells'

/** The columns of a panel directory as CSV, in order. */
const columns = [
  'position',
  'poles',
  'breaker_A',
  'label',
  'leg',
  'neutral_with',
  'protection',
  'wire',
  'tier',
  'picked',
  'traced_by',
  'traced_on',
] as const

/** The panel directory as CSV: a row for each breaker, positions from the top. */
export function directoryCsv(job: Job): string {
  const { circuits } = job.panel
  const partner = (c: Circuit) => {
    const { neutral } = c
    return neutral.kind === 'shared'
      ? (circuits.find(o => o.id === neutral.with)?.position ?? '')
      : neutral.kind
  }
  const rows = circuits.map(c => [
    c.position,
    c.poles,
    c.breakerA,
    c.label,
    feedOf(c),
    partner(c),
    c.protection,
    c.wire ? `${c.wire.size} ${c.wire.material}` : '',
    c.tier,
    c.picked ? 'yes' : 'no',
    c.traced?.by ?? '',
    c.traced?.on ?? '',
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

const protections: readonly Circuit['protection'][] = ['none', 'arc-fault', 'ground-fault', 'dual']

function readRow(text: string, cell: (column: (typeof columns)[number]) => string): Read {
  const place = /^(\d{1,3})(?:[-/,·+ ]+(\d{1,3}))?$/.exec(cell('position'))
  const rating = /^(\d{1,3})(?: ?a)?$/i.exec(cell('breaker_A'))
  if (!place) return { text, problem: `position “${cell('position')}” is no space of a panel` }
  if (!rating) return { text, problem: `breaker “${cell('breaker_A')}” is no rating in amps` }
  const protection = protections.find(p => p === cell('protection').toLowerCase())
  const wire = wireOf(cell('wire').toLowerCase())
  const shared = Number(cell('neutral_with'))
  return checked(text, {
    position: Number(place[1]),
    second: place[2] === undefined ? null : Number(place[2]),
    poles: place[2] !== undefined || cell('poles') === '2' ? 2 : 1,
    breakerA: Number(rating[1]),
    label: cell('label'),
    ...(protection && protection !== 'none' && { protection }),
    ...(wire && { wire }),
    ...(shared > 0 && { sharesWith: shared }),
  })
}
