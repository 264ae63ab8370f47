import * as z from 'zod'
import { calculator } from '../calculator'
import { editionSchema, factsOfEdition } from '../editions'
import { labelled } from '../field'
import { type Fault, fault } from '../outcome'
import { counted, positive } from '../quantity'
import { figure, quantity } from '../units/format'
import { conductorRow, conductors } from '../units/tables/conductors'
import { step } from '../working'

/** The sizes that NEC 314.16(B) gives a volume for. */
const sizes = conductors.filter(c => c.boxIn3 !== null).map(c => c.size)

const some = z.strictObject({
  size: labelled(z.string(), 'Size', 'AWG', { among: sizes }),
  count: labelled(counted, 'How many', 'count'),
})

const input = z.strictObject({
  boxIn3: labelled(positive, 'Box volume', 'in3'),
  conductors: labelled(z.array(some), 'Conductors that end or are spliced', 'text', { row: 'Conductor' }),
  grounds: labelled(some.optional(), 'Grounds'),
  devices: labelled(z.array(some).default([]), 'Devices (yokes)', 'text', {
    row: 'Device',
    description: 'with the largest conductor on each',
  }),
  clamps: labelled(z.boolean().default(false), 'Internal cable clamps'),
  edition: labelled(editionSchema.default(2020), 'Code edition'),
})

const output = z.strictObject({
  requiredIn3: labelled(z.number(), 'Needed', 'in3'),
  boxIn3: labelled(z.number(), 'Box volume', 'in3'),
  fits: labelled(z.boolean(), 'Fits'),
})

type Input = z.infer<typeof input>

/** NEC 314.16(B), in³; null for a size without a figure. */
const volumeIn3 = (size: string): number | null => conductorRow(size)?.boxIn3 ?? null

/** The volumes by what takes them. */
function parts(i: Input) {
  const volume = (size: string) => volumeIn3(size) ?? 0
  const { grounds } = i
  // from the 2020 edition on, each ground over four takes a quarter more
  const allowances =
    grounds && (factsOfEdition(i.edition).quarterGrounds ? 1 + Math.max(0, grounds.count - 4) / 4 : 1)
  const entering = [...i.conductors, ...(grounds ? [grounds] : [])].map(c => volume(c.size))
  return {
    conductorsIn3: i.conductors.reduce((sum, c) => sum + volume(c.size) * c.count, 0),
    groundsIn3: grounds && allowances ? allowances * volume(grounds.size) : 0,
    devicesIn3: i.devices.reduce((sum, d) => sum + 2 * volume(d.size) * d.count, 0),
    clampsIn3: i.clamps ? entering.reduce((a, b) => Math.max(a, b), 0) : 0,
  }
}

function solve(i: Input) {
  const p = parts(i)
  const requiredIn3 = p.conductorsIn3 + p.groundsIn3 + p.devicesIn3 + p.clampsIn3
  return { requiredIn3, boxIn3: i.boxIn3, fits: requiredIn3 <= i.boxIn3 }
}

function faultsIn(i: Input): Fault[] {
  const at: [string, string][] = [
    ...i.conductors.map((c, n): [string, string] => [`conductors[${n}].size`, c.size]),
    ...(i.grounds ? [['grounds.size', i.grounds.size] satisfies [string, string]] : []),
    ...i.devices.map((d, n): [string, string] => [`devices[${n}].size`, d.size]),
  ]
  return at.flatMap(([path, size]) =>
    volumeIn3(size) === null ? [fault(path, `has no box volume: one of ${sizes.join(', ')}`)] : [],
  )
}

/**
 * The volume a box needs for what is in it (in³), against what it has.
 * `boxIn3` in in³; sizes 14 to 6 AWG, counts whole. Faults: a size without a volume.
 * Source: NEC 314.16(B)(1) to (5); grounds over four count a quarter each from the 2020 edition on.
 */
export const boxFill = calculator({
  name: 'box-fill',
  topic: 'wiring',
  question: 'Is the box big enough?',
  asked: ['box fill', 'cubic inches', 'splices', 'junction box', 'device box'],
  input,
  output,
  example: {
    boxIn3: 42,
    conductors: [{ size: '12', count: 12 }],
    grounds: { size: '12', count: 6 },
    clamps: true,
  },
  faultsIn,
  solve,
  explain: (i, r) => {
    const f = figure
    const p = parts(i)
    const spareIn3 = r.boxIn3 - r.requiredIn3
    return {
      answer: r.fits
        ? `Needs ${quantity(r.requiredIn3, 'in3')} of ${quantity(r.boxIn3, 'in3')}: ${quantity(spareIn3, 'in3')} to spare.`
        : `Needs ${quantity(r.requiredIn3, 'in3')}; this box has ${quantity(r.boxIn3, 'in3')}, ${quantity(-spareIn3, 'in3')} too little. Take a deeper box or an extension ring.`,
      working: {
        title: 'Box fill',
        formula: [
          'conductors: one volume for each that ends or is spliced; devices: two volumes each, by their largest conductor',
          factsOfEdition(i.edition).quarterGrounds
            ? 'grounds: one volume for up to four, a quarter more for each over four'
            : 'grounds: one volume of the largest for all of them',
          'clamps inside: one volume of the largest conductor',
        ],
        steps: [
          step(
            'Conductors',
            p.conductorsIn3,
            'in3',
            i.conductors.map(c => `${f(volumeIn3(c.size) ?? 0)} × ${c.count}`).join(' + ') || undefined,
          ),
          step('Grounds', p.groundsIn3, 'in3'),
          step('Devices', p.devicesIn3, 'in3'),
          step('Clamps', p.clampsIn3, 'in3'),
          step('Needed', r.requiredIn3, 'in3'),
        ],
        rows: [
          ...new Set([...i.conductors, ...(i.grounds ? [i.grounds] : []), ...i.devices].map(c => c.size)),
        ].map(size => ({
          table: 'NEC 314.16(B)(1)',
          row: `${size} AWG`,
          value: quantity(volumeIn3(size) ?? 0, 'in3'),
        })),
        references: [`NEC 314.16(B), ${i.edition} edition`],
        ruleOfThumb:
          'Count every wire that ends in the box, two for each device, one for all grounds, one for the clamps',
        notCovered: [
          'Conductors that pass through without a splice count once (a long loop twice): enter them so. Pigtails that stay inside count nothing.',
          'Boxes for 4 AWG and larger are sized by pull and bend (314.28).',
        ],
      },
    }
  },
  curves: (i, r) => {
    const p = parts(i)
    const bar = (name: string, y: number) => ({ name, points: [{ x: 'Box', y }] })
    return [
      {
        title: 'What takes the volume',
        kind: 'stacked',
        x: { label: 'Box', unit: 'text' },
        y: { label: 'Volume', unit: 'in3' },
        series: [
          bar('Conductors', p.conductorsIn3),
          bar('Grounds', p.groundsIn3),
          bar('Devices', p.devicesIn3),
          bar('Clamps', p.clampsIn3),
        ],
        limits: [{ label: 'Box volume', y: r.boxIn3 }],
      },
    ]
  },
})
