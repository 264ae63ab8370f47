import { standing } from '@/core/job/as-planned'
import { oneLineOf } from '@/core/work/one-line'
import { demoJobs } from './jobs'

/** The one-line of each demo job as planned, as one reads it off the drawing. */
const golden: Record<string, { parts: string[]; lines: string[] }> = {
  'Alder Hollow day-care': {
    parts: [
      'utility: Utility',
      'meter: Meter',
      'panel-main: Main panel, garage (bonded electrode)',
      'transfer: Riffle 6',
      'unit-u1: Sluice 22 (floating)',
      'inlet: Inlet of the Riffle 6',
      'switched: 6 picked circuits',
      'rest-main: 17 other circuits',
    ],
    lines: [
      'utility -> meter',
      'meter -> panel-main 150 A',
      'unit-u1 -> inlet Bridge TT-30 to L14-30, Tow L14-30, 25 ft, 10 AWG, both legs tied cord',
      'inlet -> transfer 10 AWG, 2 ft, copper exclusive',
      'panel-main -> transfer 6 hots exclusive',
      'transfer -> switched',
      'panel-main -> rest-main',
    ],
  },
  'Saltmarsh Lane': {
    parts: [
      'utility: Utility',
      'meter: Meter',
      'panel-main: Main panel, utility room (bonded electrode)',
      'transfer: Sluicegate W',
      'unit-u1: Weirgate 36 (floating)',
      'array-a-u1: 2 × Ripple 200 F',
      'unit-u2: Weirgate 36 (floating)',
      'array-a-u2: 2 × Ripple 200 F',
      'generator: Freshet 18 (floating)',
      'combiner: Weirgate combiner',
      'inlet: Sill L14-30',
      'pv-c37: Solar on the shed',
      'picked-main: 7 picked circuits',
      'rest-main: 14 other circuits',
    ],
    lines: [
      'utility -> meter',
      'meter -> transfer 200 A exclusive',
      'transfer -> panel-main',
      'array-a-u1 -> unit-u1 dc',
      'array-a-u2 -> unit-u2 dc',
      'generator -> unit-u1 charges, 3,600 W cord',
      'unit-u1 -> combiner cord',
      'unit-u2 -> combiner cord',
      'combiner -> inlet Tow L14-30, 25 ft, 10 AWG, two units combined cord',
      'inlet -> transfer 10 AWG, 18 ft, copper exclusive',
      'panel-main -> pv-c37',
      'panel-main -> picked-main',
      'panel-main -> rest-main',
    ],
  },
  'Quarry Ridge studio': {
    parts: [
      'utility: Utility',
      'meter: Meter',
      'panel-house: House panel (bonded electrode)',
      'panel-studio: Studio sub-panel (bonded)',
      'panel-new-panel: + Critical-load panel (floating)',
      'transfer: Millrace 8 (floating)',
      'bank-u1: Cascade 48-280',
      'array-a1: 11 × Ripple 410',
      'pv-h2: Rooftop solar',
      'rest-house: 5 other circuits',
      'rest-studio: 5 other circuits',
      'picked-new-panel: 8 picked circuits',
      'rest-new-panel: 1 other circuit',
    ],
    lines: [
      'utility -> meter',
      'meter -> panel-house 200 A',
      'panel-house -> panel-studio 100 A, H 1·3, 1/0 AWG aluminum',
      'panel-studio -> transfer 50 A, S 17·19',
      'transfer -> panel-new-panel',
      'bank-u1 -> transfer dc',
      'array-a1 -> transfer dc',
      'panel-house -> pv-h2',
      'panel-house -> rest-house',
      'panel-studio -> rest-studio',
      'panel-new-panel -> picked-new-panel',
      'panel-new-panel -> rest-new-panel',
    ],
  },
  'Mill Street upstairs': {
    parts: [
      'utility: Utility',
      'meter: Meter',
      'panel-main: Flat panel (floating)',
      'transfer: Interlock',
      'unit-u1: Estuary outlet (not stated)',
      'inlet: Sill 5-20',
      'picked-main: 5 picked circuits',
      'rest-main: 14 other circuits',
    ],
    lines: [
      'utility -> meter',
      'meter -> transfer 100 A exclusive',
      'transfer -> panel-main',
      'unit-u1 -> inlet Tow 5-20, 25 ft, 12 AWG, one leg cord',
      'inlet -> transfer 12 AWG, 30 ft, copper exclusive',
      'panel-main -> picked-main',
      'panel-main -> rest-main',
    ],
  },
  'Fernbrook library kiosk': {
    parts: [
      'utility: Utility',
      'meter: Meter',
      'panel-main: Kiosk panel (floating)',
      'unit-u1: Rill 6 (floating)',
      'appliances: Plugged in',
      'rest-main: 2 other circuits',
    ],
    lines: [
      'utility -> meter',
      'meter -> panel-main 60 A',
      'unit-u1 -> appliances Tow 5-15, 12 ft, 14 AWG, 12 ft cord',
      'panel-main -> rest-main',
    ],
  },
  'Osprey Point boathouse': {
    parts: [
      'utility: Utility',
      'meter: Meter',
      'panel-main: Boathouse panel (floating)',
      'transfer: Sluicegate G',
      'unit-u1: Eddy 12 (floating)',
      'transformer: Tailrace 5k',
      'inlet: Sill L14-30',
      'picked-main: 2 picked circuits',
      'rest-main: 2 other circuits',
    ],
    lines: [
      'utility -> meter',
      'meter -> transfer 60 A exclusive',
      'transfer -> panel-main',
      'unit-u1 -> transformer cord',
      'transformer -> inlet Tow L14-30, 25 ft, 10 AWG, autotransformer cord',
      'inlet -> transfer 10 AWG, 12 ft, copper exclusive',
      'panel-main -> picked-main',
      'panel-main -> rest-main',
    ],
  },
}

describe.each(demoJobs.map(d => [d.job.title, d.job] as const))('%s', (title, job) => {
  const drawn = oneLineOf(job)

  test('parts with their bonds, and every line between them', () => {
    expect(
      drawn.parts.map(p => {
        const bond = [p.bond, p.electrode && 'electrode'].filter(Boolean).join(' ')
        return `${p.id}: ${p.title}${bond && ` (${bond})`}`
      }),
    ).toEqual(golden[title]?.parts)
    expect(
      drawn.lines.map(({ from, to, label, cord, exclusive }) =>
        [`${from} -> ${to}`, label.join(', '), cord && 'cord', exclusive && 'exclusive']
          .filter(Boolean)
          .join(' '),
      ),
    ).toEqual(golden[title]?.lines)
  })

  test('one electrode, and every part hangs on the utility or on a source', () => {
    expect(drawn.parts.filter(p => p.electrode).length).toBeLessThanOrEqual(1)
    const reached = new Set(['utility'])
    for (const { kind, id } of drawn.parts)
      if (['unit', 'generator', 'array', 'bank', 'solar'].includes(kind)) reached.add(id)
    for (let grew = true; grew; ) {
      grew = false
      for (const { from, to } of drawn.lines)
        if (reached.has(from) && !reached.has(to)) {
          reached.add(to)
          grew = true
        }
    }
    expect(drawn.parts.map(p => p.id).filter(id => !reached.has(id))).toEqual([])
  })

  test('as found nothing of the source is drawn, and nothing is said of bonds that depend on it', () => {
    const found = oneLineOf(standing(job))
    expect(
      found.parts.filter(p => ['unit', 'inlet', 'switch', 'interlock', 'bank'].includes(p.kind)),
    ).toEqual([])
    expect(found.notes.join(' ')).toMatch(/not decided yet.*not to be said before the hook-up is chosen/)
  })
})

test('where two supplies meet, each of the two lines is marked as the one that excludes the other', () => {
  for (const { job } of demoJobs) {
    const { parts, lines } = oneLineOf(job)
    for (const { id } of parts.filter(p => p.kind === 'switch' || p.kind === 'interlock'))
      expect(lines.filter(l => l.to === id && l.exclusive)).toHaveLength(2)
  }
})
