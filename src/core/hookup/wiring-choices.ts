import * as z from 'zod'
import { labelled } from '../field'
import { line, within } from '../quantity'
import { conductorSizeSchema, conductorSizes, materialName, materialSchema } from '../units/tables/conductors'
import { conduitKinds, tradeSizes } from '../units/tables/conduit'
import { conduitNames } from '../wiring/conduit-fill'

/** Ways to join wires, as a firm is used to. */
export const connectorSchools = { 'twist-on': 'twist-on', lever: 'lever' } as const

/** How a firm likes to wire where the Code leaves the choice. */
export const habitsSchema = z.strictObject({
  feederMetal: labelled(materialSchema, 'Feeders of 60 A and more in', 'text', { names: materialName }),
  raceway: labelled(z.enum(conduitKinds), 'Raceway indoors', 'text', { names: conduitNames }),
  connectors: labelled(z.enum(['twist-on', 'lever']), 'Splices with', 'text', { names: connectorSchools }),
  oneSizeUp: labelled(z.boolean(), 'Wire one size thicker than asked'),
  growth: labelled(z.boolean(), 'Inlet, its wire and raceway for 50 A, for a second unit later'),
  slackFt: labelled(within(0.5, 10, 'ft'), 'Left at each end', 'ft'),
})
export type Habits = z.infer<typeof habitsSchema>

export const usualHabits: Habits = {
  feederMetal: 'cu',
  raceway: 'EMT',
  connectors: 'twist-on',
  oneSizeUp: false,
  growth: false,
  slackFt: 3,
}

export const longestRouteFt = 2000

/** What a person says of a way that wires go; the rest is proposed. */
export const routeChoiceSchema = z.strictObject({
  /** of the wiring plan */
  id: line(80, 1),
  lengthFt: labelled(within(0.5, longestRouteFt, 'ft').optional(), 'Length', 'ft'),
  bendsDeg: labelled(within(0, 1440, '°').optional(), 'Bends together', 'degrees'),
  conduit: labelled(z.enum(conduitKinds).optional(), 'Raceway', 'text', { names: conduitNames }),
  tradeSize: labelled(z.enum(tradeSizes).optional(), 'Trade size'),
  ambientC: labelled(within(-40, 80, '°C').optional(), 'Warmest around it', 'C'),
  /** outdoors or otherwise wet */
  wet: labelled(z.boolean().optional(), 'Wet place'),
  through: labelled(z.enum(['finished', 'fire-rated']).optional(), 'Through a wall that is', 'text', {
    names: { finished: 'finished', 'fire-rated': 'fire-rated' },
  }),
})
export type RouteChoice = z.infer<typeof routeChoiceSchema>

/** A wire that a person chose otherwise than proposed, by its route and mark. */
export const wireChoiceSchema = z.strictObject({
  route: line(80, 1),
  mark: line(120, 1),
  size: labelled(conductorSizeSchema, 'Size', 'AWG', { among: conductorSizes }),
  material: labelled(materialSchema.optional(), 'Metal', 'text', { names: materialName }),
})

/** A thing on the wall, as seen from the front: ft from the left edge, and from the floor to its lower edge. */
export const wallBoxSchema = z.strictObject({
  /** the enclosure, by its key in the wiring plan */
  of: line(80, 1),
  leftFt: labelled(within(-100, 200, 'ft'), 'From the left', 'ft'),
  bottomFt: labelled(within(-20, 60, 'ft'), 'Above the floor', 'ft'),
  widthFt: labelled(within(0.1, 20, 'ft'), 'Width', 'ft'),
  heightFt: labelled(within(0.1, 20, 'ft'), 'Height', 'ft'),
})
export type WallBox = z.infer<typeof wallBoxSchema>

const unique = <T>(name: string, keyOf: (item: T) => string) =>
  z.check<T[]>(({ value, issues }) => {
    const keys = value.map(keyOf)
    const again = keys.findIndex((key, n) => keys.indexOf(key) < n)
    if (again >= 0)
      issues.push({ code: 'custom', path: [again], message: `repeats ${name} ${keys[again]}`, input: value })
  })

/** What is decided of the wiring by hand; everything else of it is computed. */
export const wiringChoicesSchema = z.strictObject({
  habits: habitsSchema.partial().optional(),
  routes: z
    .array(routeChoiceSchema)
    .max(60, 'must hold at most 60 routes')
    .check(unique('the route', r => r.id))
    .optional(),
  wires: z
    .array(wireChoiceSchema)
    .max(200, 'must hold at most 200 wires')
    .check(unique('the wire', w => `${w.route} ${w.mark}`))
    .optional(),
  /** a connector or a box that a person chose otherwise than proposed: of a splice or box of the plan, by its key */
  joints: z
    .array(z.strictObject({ of: line(120, 1), with: line(40, 1) }))
    .max(200, 'must hold at most 200 splices and boxes')
    .check(unique('the splice or box', j => j.of))
    .optional(),
  sketch: z
    .strictObject({
      boxes: z
        .array(wallBoxSchema)
        .max(40, 'must hold at most 40 boxes')
        .check(unique('the box', b => b.of)),
      /** a photograph of the job behind it, and how wide what it shows is */
      photoId: line(60, 1).optional(),
      photoWidthFt: labelled(within(1, 200, 'ft').optional(), 'The photograph is wide', 'ft'),
    })
    .optional(),
})
export type WiringChoices = z.infer<typeof wiringChoicesSchema>
