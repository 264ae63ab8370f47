import * as z from 'zod'
import {
  inletSchema,
  interlockSchema,
  managedPanelSchema,
  transferSwitchSchema,
} from '../equipment/hookup-kinds'
import { labelled } from '../field'
import { breakerRatings } from '../panel/schema'
import { line, within } from '../quantity'
import { conductorSizeSchema, conductorSizes, materialName, materialSchema } from '../units/tables/conductors'
import { conduitKinds, tradeSizes } from '../units/tables/conduit'
import { plugTypes, receptacleTypes } from '../units/tables/receptacles'
import { conduitNames } from '../wiring/conduit-fill'
import { methodIds } from './method'
import { positionCount, positionOf } from './position'

export const linkKinds = ['cord', 'adapter', 'inlet', 'wire', 'breaker'] as const
export const linkName = {
  cord: 'cord',
  adapter: 'adapter',
  inlet: 'inlet',
  wire: 'wire',
  breaker: 'breaker',
} as const satisfies Record<(typeof linkKinds)[number], string>

export const wireUses = ['raceway', 'NM cable', 'flexible cord'] as const
const insulationName = { 60: '60 °C (NM-B)', 75: '75 °C (THWN)', 90: '90 °C (THHN)' } as const
const terminalName = { 60: '60 °C', 75: '75 °C' } as const

/** One link of the way from the source's outlet to the breaker or switch that it feeds. */
export const linkSchema = z.strictObject({
  id: line(40, 1),
  kind: labelled(z.enum(linkKinds), 'Kind', 'text', { names: linkName }),
  name: labelled(line(60).optional(), 'What it is'),
  from: labelled(z.enum(plugTypes as [string, ...string[]]).optional(), 'Plug', 'connector'),
  to: labelled(z.enum(receptacleTypes).optional(), 'Ends in', 'connector'),
  ratingA: labelled(within(1, 400, 'A'), 'Rated', 'A'),
  material: labelled(materialSchema.optional(), 'Metal', 'text', { names: materialName }),
  size: labelled(conductorSizeSchema.optional(), 'Size', 'AWG', { among: conductorSizes }),
  lengthFt: labelled(within(0.5, 1000, 'ft').optional(), 'Length', 'ft'),
  /** of a wire: how it is laid, and what its insulation and the terminals at both ends are marked for */
  use: labelled(z.enum(wireUses).optional(), 'Laid as'),
  insulationC: labelled(z.literal([60, 75, 90]).optional(), 'Insulation', 'text', { names: insulationName }),
  terminalC: labelled(z.literal([60, 75]).optional(), 'Terminals marked', 'text', { names: terminalName }),
  /** of an adapter or inlet that brings one */
  ownBreakerA: labelled(within(1, 200, 'A').optional(), 'Breaker of its own', 'A'),
  listed: labelled(z.boolean().optional(), 'Listed for this use'),
})
export type Link = z.infer<typeof linkSchema>

const runUses = ['inlet', 'feeder', 'circuits'] as const
const runUse = {
  inlet: 'the run from the inlet',
  feeder: 'a feeder',
  circuits: 'circuits led to another panel',
} as const satisfies Record<(typeof runUses)[number], string>

/** Conductors that go together through one raceway or as one cable. */
export const runSchema = z.strictObject({
  id: line(40, 1),
  name: labelled(line(60, 1), 'From, to'),
  /** what of the wiring it is; missing: told by its name, breaker and number of wires */
  serves: labelled(z.enum(runUses).optional(), 'It is', 'text', { names: runUse }),
  breakerA: labelled(within(10, 400, 'A'), 'Largest breaker on it', 'A'),
  material: labelled(materialSchema, 'Metal', 'text', { names: materialName }),
  size: labelled(conductorSizeSchema, 'Size', 'AWG', { among: conductorSizes }),
  insulationC: labelled(z.literal([60, 75, 90]), 'Insulation', 'text', { names: insulationName }),
  terminalC: labelled(z.literal([60, 75]).optional(), 'Terminals marked', 'text', { names: terminalName }),
  conductors: labelled(
    z.int().min(1, 'must be 1 or more').max(60, 'must be at most 60'),
    'Hots and neutrals',
    'count',
  ),
  currentCarrying: labelled(
    z.int().min(1, 'must be 1 or more').max(60, 'must be at most 60'),
    'of them current-carrying',
    'count',
  ),
  deratingKnown: labelled(z.boolean(), 'Derated for their number'),
  groundSize: labelled(conductorSizeSchema.optional(), 'Equipment ground', 'AWG', { among: conductorSizes }),
  /** what serves as the equipment ground where no wire of a size does */
  ground: labelled(z.enum(['wire', 'raceway', 'none', 'unknown']).optional(), 'Ground runs by'),
  /** the size that its amps alone would ask, where it was enlarged for voltage drop */
  enlargedFrom: labelled(conductorSizeSchema.optional(), 'Enlarged for drop, from', 'AWG', {
    among: conductorSizes,
  }),
  /** more than one receptacle for cord-and-plug loads hangs on it: no rounding up */
  feedsReceptacles: labelled(z.boolean().optional(), 'Feeds more than one receptacle'),
  /** conductors of another size or metal that lie with them */
  others: labelled(
    z
      .array(
        z.strictObject({
          breakerA: labelled(within(10, 400, 'A'), 'Breaker', 'A'),
          material: labelled(materialSchema, 'Metal', 'text', { names: materialName }),
          size: labelled(conductorSizeSchema, 'Size', 'AWG', { among: conductorSizes }),
          conductors: labelled(
            z.int().min(1, 'must be 1 or more').max(60, 'must be at most 60'),
            'Hots and neutrals',
            'count',
          ),
          currentCarrying: labelled(
            z.int().min(0, 'must not be negative').max(60, 'must be at most 60'),
            'of them current-carrying',
            'count',
          ),
        }),
      )
      .max(8, 'must hold at most 8 rows')
      .optional(),
    'Other sizes in it',
    'text',
    { row: 'Other size' },
  ),
  conduit: labelled(z.enum(conduitKinds).optional(), 'Conduit', 'text', { names: conduitNames }),
  tradeSize: labelled(z.enum(tradeSizes).optional(), 'Trade size'),
  lengthFt: labelled(within(0.5, 2000, 'ft'), 'Length', 'ft'),
  ambientC: labelled(within(-40, 80, '°C').optional(), 'Warmest around it', 'C'),
  boxIn3: labelled(within(1, 1000, 'in³').optional(), 'Smallest box on it', 'in3'),
  spliced: labelled(
    z.int().min(0, 'must not be negative').max(60, 'must be at most 60').optional(),
    'Conductors that enter that box',
    'count',
  ),
})
export type Run = z.infer<typeof runSchema>

export const positionSchema = z.strictObject({
  /** of a two-pole, the first of its two */
  position: z.int('must be a whole number').min(1, 'must be 1 or more').max(84),
  circuitId: line(40, 1),
  /** by hand: the solver leaves it */
  pinned: z.boolean(),
  /** the breaker planned in place of the one that is fitted there */
  breakerA: within(10, 100, 'A').optional(),
})

/** Where a moved circuit lands in its new panel. */
export const landingSchema = z.strictObject({
  circuitId: line(40, 1),
  /** the upper space */
  position: z.int('must be a whole number').min(1, 'must be 1 or more').max(84),
  /** by hand: the solver leaves it */
  pinned: z.boolean(),
})

const feederRating = z
  .number()
  .refine(
    v => breakerRatings.includes(v),
    `must be a standard breaker rating: ${breakerRatings.join(', ')} A`,
  )

export const hookupDevices = ['switch', 'secondSwitch', 'managed', 'interlock', 'inlet'] as const
export type HookupDevice = (typeof hookupDevices)[number]

export const hookupSchema = z.strictObject({
  method: z.enum(methodIds),
  bondingPlug: z.boolean(),
  /** the panel that the source is tied to; missing: the first */
  panelId: line(40, 1).optional(),
  /** the pre-wired leads of a transfer switch: their length inside the panel, and where they come in */
  whip: z
    .strictObject({
      leadIn: within(1, 240, 'in'),
      entersAt: z.enum(['top left', 'top right', 'bottom left', 'bottom right']),
    })
    .optional(),
  /** the catalogue's facts as they were when the job was designed */
  switch: transferSwitchSchema.optional(),
  /** a second switch on the same source; its positions are numbered on after those of the first */
  secondSwitch: transferSwitchSchema.optional(),
  managed: managedPanelSchema.optional(),
  interlock: interlockSchema.optional(),
  inlet: inletSchema.optional(),
  /** the backfed breaker: its upper space, its rating, and whether it is held down */
  backfed: z
    .strictObject({
      space: z.int('must be a whole number').min(1, 'must be 1 or more').max(84).optional(),
      breakerA: within(10, 200, 'A'),
      heldDown: z.boolean(),
    })
    .optional(),
  /** whether the equipment ground runs through the whole path */
  ground: z.enum(['continuous', 'interrupted', 'unknown']).optional(),
  /** whether the neutral of the source reaches the neutral bar of the panel, or the switch, that it feeds */
  sourceNeutral: z.enum(['lands', 'left off', 'unknown']).optional(),
  /** what of it the house has already */
  exists: z
    .array(z.enum(hookupDevices))
    .max(hookupDevices.length, `must hold at most ${hookupDevices.length}`)
    .optional(),
  /** a new panel that circuits move to: what a person decided of it; the rest follows from the circuits */
  newPanel: z
    .strictObject({
      name: line(60, 1).optional(),
      spaces: z
        .int('must be a whole number')
        .min(4, 'must be from 4 to 84')
        .max(84, 'must be from 4 to 84')
        .refine(n => n % 2 === 0, 'must be even: a row has two positions')
        .optional(),
      /** of its feeder, in the panel that circuits come from */
      feederA: feederRating.optional(),
      feederSpace: z.int('must be a whole number').min(1, 'must be 1 or more').max(84).optional(),
    })
    .optional(),
  /** where moved circuits land in it: as solved, or as a person pinned them */
  landings: z.array(landingSchema).max(84, 'must hold at most 84 landings').optional(),
  /** where the breakers of moved circuits stand in their new panel */
  movedPlaces: z.enum(['placed anew', 'in the old order']).optional(),
  /** the new panel stands in the feeder of the panel it is tied to, and takes all of it over */
  intercepts: z.boolean().optional(),
  /** whether the neutrals of moved circuits go with their hots */
  neutrals: z.enum(['follow their hots', 'stay behind']).optional(),
  /** a flexible cord fastened, or through a wall */
  fixedCord: z.boolean().optional(),
  /** an indicator or alarm ahead of the main tells that the utility is back */
  utilityTold: z.boolean().optional(),
  path: z.array(linkSchema).max(16, 'must hold at most 16 links').optional(),
  runs: z.array(runSchema).max(24, 'must hold at most 24 runs').optional(),
  positions: z.array(positionSchema).max(84, 'must hold at most 84 positions').optional(),
})
export type Hookup = z.infer<typeof hookupSchema>

/** What no single key of a hook-up can tell. Paths are those inside the hook-up. */
export function checkHookup(
  hookup: Hookup,
  circuitIds: ReadonlySet<string>,
  say: (path: PropertyKey[], message: string) => void,
) {
  const seen = new Set<string>()
  hookup.path?.forEach((link, n) => {
    if (link.kind === 'cord' && link.lengthFt === undefined)
      say(['path', n, 'lengthFt'], 'is missing: give the cord’s length, ft')
    if (link.kind === 'adapter') {
      if (!link.from || !link.to) say(['path', n, 'to'], 'is missing: an adapter has a plug and a receptacle')
      else if (seen.has(link.to) || link.from === link.to)
        say(['path', n, 'to'], `goes round in a circle: ${link.to} stood there before. Take adapters out`)
      if (link.from) seen.add(link.from)
    } else seen.clear()
  })
  const ids = (list: readonly { id: string }[] | undefined) => new Set(list?.map(l => l.id)).size
  if (hookup.path && ids(hookup.path) < hookup.path.length) say(['path'], 'repeats an id')
  if (hookup.runs && ids(hookup.runs) < hookup.runs.length) say(['runs'], 'repeats an id')
  hookup.runs?.forEach((run, n) => {
    run.others?.forEach((other, o) => {
      if (other.currentCarrying > other.conductors)
        say(
          ['runs', n, 'others', o, 'currentCarrying'],
          `must be at most ${other.conductors}, the hots and neutrals there are`,
        )
    })
    if (run.ground === 'none' && run.groundSize)
      say(['runs', n, 'ground'], `cannot be none: a ground of ${run.groundSize} AWG is entered`)
    const enlarged = run.enlargedFrom
    if (enlarged && conductorSizes.indexOf(enlarged) > conductorSizes.indexOf(run.size))
      say(['runs', n, 'enlargedFrom'], `must not be thicker than the ${run.size} AWG that is laid`)
    if (run.currentCarrying > run.conductors)
      say(
        ['runs', n, 'currentCarrying'],
        `must be at most ${run.conductors}, the hots and neutrals there are`,
      )
    if ((run.conduit === undefined) !== (run.tradeSize === undefined))
      say(['runs', n, run.conduit ? 'tradeSize' : 'conduit'], 'is missing: a conduit has a kind and a size')
  })
  const landed = hookup.landings?.map(l => l.circuitId) ?? []
  const twice = landed.findIndex((id, n) => landed.indexOf(id) < n)
  if (twice >= 0) say(['landings', twice, 'circuitId'], 'lands twice')
  const taken = new Set<number>()
  const placed = new Set<string>()
  const most = positionCount(hookup)
  if (hookup.secondSwitch && !hookup.switch)
    say(['secondSwitch'], 'must be left out while there is no first switch')
  hookup.positions?.forEach((p, n) => {
    const mostA = positionOf(hookup, p.position)?.mostA
    if (p.breakerA !== undefined && mostA !== undefined && p.breakerA > mostA)
      say(
        ['positions', n, 'breakerA'],
        `is ${p.breakerA} A, but position ${p.position} takes at most ${mostA} A`,
      )
    if (!circuitIds.has(p.circuitId)) say(['positions', n, 'circuitId'], 'must name a circuit of this job')
    if (taken.has(p.position)) say(['positions', n, 'position'], `is taken twice: ${p.position}`)
    if (placed.has(p.circuitId)) say(['positions', n, 'circuitId'], 'stands on two positions')
    if (most !== undefined && p.position > most)
      say(['positions', n, 'position'], `is ${p.position}, but there are ${most}`)
    taken.add(p.position)
    placed.add(p.circuitId)
  })
}
