import * as z from 'zod'
import { calculator } from '../calculator'
import { labelled } from '../field'
import { type Fault, fault } from '../outcome'
import { positive } from '../quantity'
import { figure, plural, quantity, sentenceStart } from '../units/format'
import {
  conductorName,
  conductorRow,
  conductorSizes,
  materialName,
  materialSchema,
  noSuchSize,
  ordinaryAmpacityA,
} from '../units/tables/conductors'
import { cordAmpacityA, cords } from '../units/tables/cords'
import { connectorOf, isReceptacle, plugTypes, receptacleTypes } from '../units/tables/receptacles'
import { ampacity } from '../wiring/ampacity'
import { ohmPerKft } from '../wiring/voltage-drop'
import { step } from '../working'
import { mating } from './connectors'

const linkSchema = z.strictObject({
  kind: labelled(z.enum(['cord', 'adapter', 'inlet', 'wire', 'breaker']), 'Kind'),
  from: labelled(z.string().optional(), 'Plug', 'connector', { among: plugTypes }),
  to: labelled(z.string().optional(), 'Ends in', 'connector', { among: receptacleTypes }),
  ratingA: labelled(positive, 'Rated', 'A'),
  material: labelled(materialSchema.default('cu'), 'Metal', 'text', { names: materialName }),
  size: labelled(z.string().optional(), 'Size', 'AWG', { among: conductorSizes }),
  lengthFt: labelled(positive.optional(), 'Length', 'ft'),
  use: labelled(z.enum(['raceway', 'NM cable', 'flexible cord']).optional(), 'Laid as', 'text', {
    description: 'of a wire; with its insulation and terminals: 60 °C if left out',
  }),
  insulationC: labelled(z.literal([60, 75, 90]).optional(), 'Insulation', 'text', {
    names: { 60: '60 °C', 75: '75 °C', 90: '90 °C' },
  }),
  terminalC: labelled(z.literal([60, 75]).optional(), 'Terminals marked', 'text', {
    names: { 60: '60 °C', 75: '75 °C' },
  }),
})

const input = z.strictObject({
  outlet: labelled(
    z
      .strictObject({
        type: labelled(z.string(), 'Receptacle', 'connector', { among: receptacleTypes }),
        limitA: labelled(positive.optional(), 'Its own limit', 'A'),
      })
      .optional(),
    'Source’s outlet',
    'text',
    { description: 'left out where the source is wired on' },
  ),
  links: labelled(z.array(linkSchema).min(1, 'must not be empty'), 'Links, from the source on', 'text', {
    row: 'Link',
  }),
  sourceV: labelled(z.literal([120, 240]), 'Volts', 'V', { names: { 120: '120 V', 240: '240 V' } }),
  continuous: labelled(z.boolean().default(true), 'Three hours or longer (continuous)'),
  loadA: labelled(positive.optional(), 'Load', 'A'),
})

const codes = ['no-mate', 'undersized', 'no-240', 'no-120', 'overload'] as const

const output = z.strictObject({
  limitA: labelled(z.number(), 'The chain carries', 'A'),
  limitedBy: labelled(z.number(), 'Weakest link (−1 the outlet)', 'count'),
  continuousA: labelled(z.number(), 'For hours on end', 'A'),
  dropV: labelled(z.number(), 'Drop', 'V'),
  dropFraction: labelled(z.number(), 'Drop, share of the source', 'fraction'),
  faults: labelled(
    z.array(
      z.strictObject({
        at: labelled(z.number(), 'Link', 'count'),
        code: labelled(z.enum(codes), 'Code'),
        message: labelled(z.string(), 'What is wrong'),
      }),
    ),
    'Findings',
    'text',
    { row: 'Finding' },
  ),
})

type Input = z.infer<typeof input>
type Link = Input['links'][number]
type Output = z.infer<typeof output>
type ChainFault = Output['faults'][number]

const ampsOf = (type: string | undefined) =>
  (type === undefined ? undefined : connectorOf(type)?.amps) ?? Infinity

/** Ratings from the source on: the outlet first, each no more than its connectors carry. */
const ratings = (i: Input): number[] => [
  ...(i.outlet ? [Math.min(i.outlet.limitA ?? Infinity, ampsOf(i.outlet.type))] : []),
  ...i.links.map(l => Math.min(l.ratingA, ampsOf(l.from), ampsOf(l.to))),
]

/**
 * What a link's wire may carry (A): cords by their own table; a wire by its insulation and terminals where they are said, as
 * the `ampacity` calculator has it (NM cable never above its 60 °C column, NEC 334.80), else at ordinary terminations.
 * Null: no figure.
 */
function wireA(link: Link): number | null {
  const { size, material, use, insulationC, terminalC } = link
  if (size === undefined) return null
  if (link.kind === 'cord' || use === 'flexible cord') return cordAmpacityA(size)
  if (use === 'NM cable' || (insulationC === undefined && terminalC === undefined))
    return ordinaryAmpacityA(material, size)
  const insulation = insulationC ?? terminalC ?? 60
  if (!conductorRow(size, material)) return null
  return ampacity.compute({
    material,
    size,
    insulationC: insulation,
    terminationC: Math.min(terminalC ?? 60, insulation) as 60 | 75,
    ambientC: 30,
    currentCarrying: 3,
    nipple: false,
    roundUp: true,
  }).result.maxBreakerA
}
const wireTable = ({ kind, use, insulationC, terminalC }: Link): { table: string; column: string } =>
  kind === 'cord' || use === 'flexible cord'
    ? { table: 'NEC 400.5(A)(1), column B', column: 'two current-carrying' }
    : {
        table: 'NEC 310.16 and 240.4(D)',
        column:
          use === 'NM cable' || (insulationC === undefined && terminalC === undefined)
            ? '60 °C'
            : `${insulationC ?? terminalC} °C, terminals ${terminalC ?? 60} °C`,
      }

const ohmsOf = (link: Link): number =>
  link.size === undefined || link.lengthFt === undefined
    ? 0
    : 2 * (link.lengthFt / 1000) * ohmPerKft(link.material, link.size, 75)

/** What a place is called: `the outlet`, `link 2 (cord)`. */
export const placeName = (i: Pick<Input, 'links'>, at: number) =>
  at < 0 ? 'the outlet' : `link ${at + 1} (${i.links[at]?.kind ?? ''})`

/** The faults of voltage at one place: its connectors do not carry what the source is to give. */
function voltageFaults(i: Input, at: number, types: readonly (string | undefined)[]): ChainFault[] {
  const known = types.flatMap(type => {
    const connector = type === undefined ? null : connectorOf(type)
    return connector ? [{ type, connector }] : []
  })
  const only120 = known.find(k => k.connector.volts === '120')
  const noNeutral = known.find(k => !k.connector.neutral)
  if (i.sourceV === 240)
    return only120
      ? [{ at, code: 'no-240', message: `${only120.type} carries 120 V only: nothing at 240 V gets past it` }]
      : []
  return noNeutral
    ? [{ at, code: 'no-120', message: `${noNeutral.type} has no neutral: it cannot carry 120 V` }]
    : []
}

function linkFaults(i: Input, link: Link, at: number): ChainFault[] {
  const before = at === 0 ? i.outlet?.type : i.links[at - 1]?.to
  const mate = link.from === undefined ? { mates: true as const } : mating(before, link.from)
  const carries = wireA(link)
  return [
    ...(mate.mates ? [] : [{ at, code: 'no-mate' as const, message: mate.message }]),
    ...(carries !== null && link.ratingA > carries
      ? [
          {
            at,
            code: 'undersized' as const,
            message: `is rated ${quantity(link.ratingA, 'A')}, but ${conductorName(link.size ?? '', link.material)} may carry ${quantity(carries, 'A')} here: take thicker wire or a smaller rating`,
          },
        ]
      : []),
    ...voltageFaults(i, at, [link.from, link.to]),
  ]
}

function solve(i: Input): Output {
  const all = ratings(i)
  const limitA = all.reduce((a, b) => Math.min(a, b))
  const limitedBy = all.indexOf(limitA) - (i.outlet ? 1 : 0)
  const continuousA = i.continuous ? 0.8 * limitA : limitA
  const loadA = i.loadA ?? continuousA
  const dropV = i.links.reduce((sum, l) => sum + ohmsOf(l), 0) * loadA
  const overload = (at: number): ChainFault[] =>
    at === limitedBy && i.loadA !== undefined && i.loadA > limitA
      ? [
          {
            at,
            code: 'overload',
            message: `a load of ${quantity(i.loadA, 'A')} is above the ${quantity(limitA, 'A')} of ${placeName(i, at)}`,
          },
        ]
      : []
  const faults = [
    ...voltageFaults(i, -1, [i.outlet?.type]),
    ...overload(-1),
    ...i.links.flatMap((link, at) => [...linkFaults(i, link, at), ...overload(at)]),
  ]
  return { limitA, limitedBy, continuousA, dropV, dropFraction: dropV / i.sourceV, faults }
}

function faultsIn(i: Input): Fault[] {
  const receptacle = `is not a receptacle of the table: one of ${receptacleTypes.join(', ')}`
  return [
    ...(!i.outlet || isReceptacle(i.outlet.type) ? [] : [fault('outlet.type', receptacle)]),
    ...i.links.flatMap((link, n): Fault[] => {
      const at = `links[${n}]`
      const noSize = link.size !== undefined && wireA(link) === null
      const aluminumCord = link.kind === 'cord' && link.material === 'al'
      return [
        ...(link.from === undefined || connectorOf(link.from)
          ? []
          : [fault(`${at}.from`, `is not a plug of the table: one of ${plugTypes.join(', ')}`)]),
        ...(link.to === undefined || isReceptacle(link.to) ? [] : [fault(`${at}.to`, receptacle)]),
        ...(aluminumCord ? [fault(`${at}.material`, 'must be "cu": flexible cord is copper')] : []),
        ...(noSize && !aluminumCord
          ? [
              fault(
                `${at}.size`,
                link.kind === 'cord'
                  ? `has no cord ampacity: one of ${cords.map(c => c.size).join(', ')}`
                  : noSuchSize(link.material),
              ),
            ]
          : []),
      ]
    }),
  ]
}

/**
 * The chain from a source's outlet over cord, adapter, inlet and wire to the breaker: what mates, what it carries,
 * what limits it, and the volts lost. Ratings and `loadA` in A, `lengthFt` in ft, `sourceV` 120 or 240; A and V out.
 * Faults of the input: an unknown connector; a size without a figure; cord of aluminum. Findings of the chain
 * (`faults`) stand in order from the source.
 * Source: NEMA WD 6 configurations, NEC 400.5(A)(1), 310.16 (60 °C), 240.4(D), 210.20(A) (80 % continuous), Ohm's law.
 */
export const cordChain = calculator({
  name: 'cord-chain',
  topic: 'wiring',
  question: 'Does it all plug together?',
  asked: [
    'what carries least',
    'plug',
    'adapter',
    'inlet',
    'cord',
    'weakest link',
    'L14-30',
    '14-50',
    'TT-30',
    'connector',
    'extension cord',
  ],
  input,
  output,
  example: {
    outlet: { type: 'L14-30' },
    links: [
      { kind: 'cord', from: 'L14-30', to: 'L14-30', ratingA: 30, size: '10', lengthFt: 25 },
      { kind: 'inlet', from: 'L14-30', ratingA: 30 },
      { kind: 'wire', ratingA: 30, size: '10', lengthFt: 40 },
      { kind: 'breaker', ratingA: 30 },
    ],
    sourceV: 240,
  },
  faultsIn,
  solve,
  explain: (i, r) => {
    const f = figure
    const ohms = i.links.reduce((sum, l) => sum + ohmsOf(l), 0)
    const loadA = i.loadA ?? r.continuousA
    const all = ratings(i)
    const found = r.faults.length
    return {
      answer: `Carries ${quantity(r.continuousA, 'A')}${i.continuous ? ' for hours on end' : ''}, limited by ${placeName(i, r.limitedBy)}; loses ${quantity(r.dropV, 'V')}.${
        found ? ` ${plural(found, 'finding')} to put right first.` : ''
      }`,
      findings: r.faults.map(({ at, message }) => `${sentenceStart(placeName(i, at))}: ${message}.`),
      working: {
        title: 'From outlet to breaker',
        formula: [
          'the chain carries what its weakest link carries; a connector limits its link to its own amps',
          i.continuous ? 'for hours on end: 80 % of that' : 'not continuous: all of it',
          'drop = resistance of every length, out and back, × load',
        ],
        steps: [
          ...all.map((a, n) => step(placeName(i, n - (i.outlet ? 1 : 0)), a, 'A')),
          step('For hours on end', r.continuousA, 'A', i.continuous ? `0.8 × ${f(r.limitA)}` : undefined),
          step('Drop', r.dropV, 'V', `${f(ohms)} × ${f(loadA)}`),
          step('Share of the source', r.dropFraction, 'fraction', `${f(r.dropV)} ÷ ${f(i.sourceV)}`),
        ],
        rows: i.links.flatMap((link, n) => {
          const carries = wireA(link)
          return carries === null
            ? []
            : [
                {
                  table: wireTable(link).table,
                  row: `${placeName(i, n)}: ${conductorName(link.size ?? '', link.material)}`,
                  column: wireTable(link).column,
                  value: quantity(carries, 'A'),
                },
              ]
        }),
        references: [
          'NEMA WD 6 configurations',
          'NEC 400.5(A)(1)',
          'NEC 210.20(A) (80 % for continuous load)',
          'NEC 240.5 (cords)',
        ],
        ruleOfThumb: '80 % of the smallest number printed anywhere between outlet and breaker',
        notCovered: [
          'Where cords may run: never through walls, doors or under rugs, and never as permanent wiring (NEC 400.12).',
        ],
      },
    }
  },
  curves: (i, r) => [
    {
      title: 'What each link carries',
      kind: 'bars',
      x: { label: 'From the source on', unit: 'text' },
      y: { label: 'Rating', unit: 'A' },
      series: [
        {
          name: 'Rating',
          points: ratings(i).map((y, n) => ({
            x:
              i.outlet && n === 0
                ? 'outlet'
                : `${i.outlet ? n : n + 1} ${i.links[i.outlet ? n - 1 : n]?.kind ?? ''}`,
            y,
          })),
        },
      ],
      limits: [{ label: 'For hours on end', y: r.continuousA }],
    },
  ],
})
