import * as z from 'zod'
import { loadSchema } from '../loads/load'
import { line, within } from '../quantity'
import { sourcedNumber } from '../sourced'
import { conductorSizeSchema, materialSchema } from '../units/tables/conductors'
import { legSchema } from './leg'
import { halvesOf, legOf, positionText, rowOf, spaceName, spacesOf } from './positions'
import { protectionIds } from './protection'

export const breakerRatings: readonly number[] = [
  10, 15, 20, 25, 30, 35, 40, 45, 50, 60, 70, 80, 90, 100, 110, 125, 150, 175, 200,
]
const mainRatings = [30, 40, 50, 60, 70, 80, 90, 100, 110, 125, 150, 175, 200, 225, 300, 400] as const
export const mainsOffered: readonly number[] = mainRatings
const oneOf = (values: readonly number[], what: string) =>
  z.number().refine(v => values.includes(v), `must be a standard ${what}: ${values.join(', ')} A`)

/** What tracing found: known only when someone has seen the circuit die and what died with it is plain. */
export const tracedSchema = z.strictObject({
  by: line(60, 1),
  on: z.iso.date('must be a date: YYYY-MM-DD'),
  found: z.enum(['known', 'doubtful', 'nothing']),
  /** what died when it was switched off */
  died: line(200).optional(),
  seconds: z.int('must be a whole number').min(0).max(86_400, 'must be at most a day').optional(),
})

/** A breaker of the panel and the circuit behind it. A blank label is a fact: the directory says nothing. */
export const circuitSchema = z.strictObject({
  id: line(40, 1),
  /** the upper space, odd left and even right; a two-pole also takes the one below it on the same side */
  position: z.int('must be a whole number').min(1, 'must be 1 or more'),
  poles: z.union([z.literal(1), z.literal(2)], 'must be 1 or 2'),
  /** upper or lower half of a tandem; of a two-pole, the outer or inner pair of a quad */
  half: z.enum(['a', 'b']).optional(),
  breakerA: oneOf(breakerRatings, 'breaker rating'),
  /** the breaker's own type, as printed on it */
  type: line(20).optional(),
  label: line(80),
  /** what hangs on it: loads, or a solar inverter that feeds in */
  purpose: z.enum(['loads', 'solar']),
  wire: z
    .strictObject({
      material: materialSchema,
      size: conductorSizeSchema,
      use: z.enum(['raceway', 'NM cable']).optional(),
      /** °C that the terminals at both ends are marked for; missing: 60. It counts in a raceway: NM cable stays at 60 °C */
      terminalC: z.literal([60, 75]).optional(),
      /** one way to its last outlet */
      lengthFt: within(0.5, 2000, 'ft').optional(),
    })
    .optional(),
  /** the way from the source’s outlet to the last outlet and back, as it was read: it takes the place of what its wires would have */
  loopOhms: sourcedNumber(within(0, 20, 'Ω')).optional(),
  neutral: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('own') }),
    z.strictObject({ kind: z.literal('unknown') }),
    z.strictObject({ kind: z.literal('shared'), with: line(40, 1) }),
  ]),
  /** joined to the one-pole beside it: by its handle alone, or so that one trip opens both */
  tie: z.strictObject({ with: line(40, 1), kind: z.enum(['handle', 'common trip']) }).optional(),
  protection: z.enum(protectionIds),
  /** who switched it off, when, and what was found; missing while nobody has */
  traced: tracedSchema.optional(),
  /** 1 must run, 2 should, 3 may go */
  tier: z.union([z.literal(1), z.literal(2), z.literal(3)], 'must be 1, 2 or 3'),
  picked: z.boolean(),
  /** a device of that kind stands at the first outlet, whatever breaker feeds it */
  outletProtection: z.boolean().optional(),
  /** kept off by a lock while the source feeds its panel */
  lockedOff: z.boolean().optional(),
  loads: z.array(loadSchema).max(12, 'must hold at most 12 loads'),
})
export type Circuit = z.infer<typeof circuitSchema>

/** A circuit counts as known only when someone has seen it die. */
export const isKnown = (circuit: Circuit): boolean => circuit.traced?.found === 'known'

export const mostSpaces = 84
const fewestSpaces = 4
const spacesText = `must be from ${fewestSpaces} to ${mostSpaces}`
const spaceList = z
  .array(
    z
      .int('must be a whole number')
      .min(1, 'must be 1 or more')
      .max(mostSpaces, `must be at most ${mostSpaces}`),
  )
  .max(mostSpaces, `must hold at most ${mostSpaces} spaces`)

export const panelSchema = z.strictObject({
  id: line(40, 1),
  name: line(60, 1),
  /** a short mark before its positions where a job has several panels, such as `S` */
  mark: line(4),
  /** the main breaker; missing: main lugs only */
  mainA: oneOf(mainRatings, 'main rating').optional(),
  busA: oneOf(mainRatings, 'bus rating').optional(),
  spaces: z
    .int('must be a whole number')
    .min(fewestSpaces, spacesText)
    .max(mostSpaces, spacesText)
    .refine(n => n % 2 === 0, 'must be even: a row has two positions'),
  numbering: z.enum(['odd-even', 'in sequence']),
  feedsFrom: z.enum(['top', 'bottom']),
  /** the leg of the first row, the rows alternating from it; or the leg of each row, as found with a meter */
  busLegs: z.union(
    [legSchema, z.array(legSchema).max(mostSpaces / 2)],
    'must be L1, L2, or a list with L1 or L2 for each row',
  ),
  supply: z.enum(['service', 'fed from another panel']),
  /** the two-pole circuit of another panel of this job that feeds this one */
  feederId: line(40, 1).optional(),
  /** whether neutral and ground are joined in it, as found */
  neutralBonded: z.boolean().optional(),
  where: line(120),
  exposure: z.enum(['indoors', 'damp', 'wet', 'unknown']),
  /** clear depth in front of it, in */
  clearDepthIn: within(0, 240, 'in').optional(),
  /** maker's series as the sticker has it: it fixes which breakers and interlock fit */
  series: line(60),
  /** breaker types that the sticker permits; empty while unknown */
  breakerTypes: z.array(line(20, 1)).max(30, 'must hold at most 30 types'),
  /** the spaces that take a tandem, by the sticker; missing while unknown */
  tandemSpaces: spaceList.optional(),
  /** spaces that cannot be used: a broken stab, a filler riveted in, no bus behind */
  unusable: spaceList,
  /** highest demand of a year on this panel */
  demandW: sourcedNumber(within(0, 200_000, 'W'))
    .extend({
      /** allowance where the data are hourly: an hour's mean hides the quarter-hour's peak */
      peakFactor: within(1, 3, '×').optional(),
    })
    .optional(),
  circuits: z.array(circuitSchema).max(168, 'must hold at most 168 circuits'),
})
export type Panel = z.infer<typeof panelSchema>

/** What of a panel is known before anything else is. */
export const bare = (id: string, name: string, spaces: number, mainA?: number): Panel => ({
  id,
  name,
  mark: '',
  ...(mainA !== undefined && { mainA }),
  spaces,
  numbering: 'odd-even',
  feedsFrom: 'top',
  busLegs: 'L1',
  supply: 'service',
  where: '',
  exposure: 'unknown',
  series: '',
  breakerTypes: [],
  unusable: [],
  circuits: [],
})

type Say = (path: PropertyKey[], message: string) => void

/** What no single key of a panel can tell: overlaps, legs, pairs. Paths are those inside the panel. */
export function checkPanel(panel: Panel, say: Say) {
  if (typeof panel.busLegs !== 'string' && panel.busLegs.length !== panel.spaces / 2)
    say(
      ['busLegs'],
      `must name the leg of each of the ${panel.spaces / 2} rows; this names ${panel.busLegs.length}`,
    )
  for (const key of ['unusable', 'tandemSpaces'] as const) {
    const beyond = panel[key]?.find(space => space > panel.spaces)
    if (beyond !== undefined) say([key], `names space ${beyond}, but the panel has ${panel.spaces}`)
  }
  if (panel.supply === 'service' && panel.feederId !== undefined)
    say(['feederId'], 'must be left out of a service panel: nothing of this job feeds it')
  const taken = new Map<string, string>()
  panel.circuits.forEach((circuit, i) => {
    const at = ['circuits', i]
    const name = circuit.label || `the breaker at ${positionText(panel, circuit)}`
    const spaces = spacesOf(circuit)
    const beyond = spaces.find(space => space > panel.spaces)
    if (beyond !== undefined)
      say(
        [...at, 'position'],
        `needs space ${spaceName(panel, beyond)} for ${name}, but the panel has ${panel.spaces}`,
      )
    const halves = halvesOf(circuit)
    const clash = halves.find(half => taken.has(half))
    if (clash !== undefined)
      say(
        [...at, 'position'],
        `needs space ${spaceName(panel, Number.parseInt(clash, 10))}, which ${taken.get(clash)} takes`,
      )
    for (const half of halves) taken.set(half, name)
    const dead = spaces.find(space => panel.unusable.includes(space))
    if (dead !== undefined)
      say([...at, 'position'], `needs space ${spaceName(panel, dead)}, which is marked as unusable`)
    const [upper = 0, lower] = spaces
    if (lower !== undefined && beyond === undefined && legOf(panel, upper) === legOf(panel, lower))
      say(
        [...at, 'poles'],
        `would put both poles on ${legOf(panel, upper)}: ${spaceName(panel, upper)} and ${spaceName(panel, lower)} are on one leg here, which gives no 240 V`,
      )
    if (new Set(circuit.loads.map(l => l.id)).size < circuit.loads.length)
      say([...at, 'loads'], 'repeats a load id')
    checkPairs(panel, circuit, (path, message) => say([...at, ...path], message))
  })
}

function checkPairs(panel: Panel, circuit: Circuit, say: Say) {
  const { neutral, tie } = circuit
  if (neutral.kind === 'shared') {
    const partner = panel.circuits.find(c => c.id === neutral.with)
    if (!partner || partner === circuit)
      say(
        ['neutral', 'with'],
        'must name another circuit of the same panel: a neutral is never shared across panels',
      )
    else if (partner.neutral.kind !== 'shared' || partner.neutral.with !== circuit.id)
      say(['neutral', 'with'], `names ${partner.label || partner.id}, which does not name this circuit back`)
  }
  if (!tie) return
  const partner = panel.circuits.find(c => c.id === tie.with)
  if (!partner || partner === circuit) say(['tie', 'with'], 'must name another circuit of the same panel')
  else if (partner.tie?.with !== circuit.id || partner.tie.kind !== tie.kind)
    say(['tie', 'with'], `names ${partner.label || partner.id}, which does not name this circuit back`)
  else if (circuit.poles === 2 || partner.poles === 2)
    say(['tie'], 'is between one-poles only: a two-pole is one breaker already')
  else if (!besideEachOther(circuit, partner))
    say(
      ['tie', 'with'],
      `names ${partner.label || partner.id}, which does not stand directly above or below it`,
    )
}

/** Directly above or below each other, or halves of one tandem: where a tie may join them. */
export const besideEachOther = (a: Circuit, b: Circuit) =>
  a.position % 2 === b.position % 2 && Math.abs(rowOf(a.position) - rowOf(b.position)) <= 1
