import * as z from 'zod'
import { labelled } from '../field'
import { line, within } from '../quantity'
import { conductorSizeSchema, conductorSizes } from '../units/tables/conductors'
import { plugTypes, receptacleTypes } from '../units/tables/receptacles'
import { amps, head, ratedFor, tail } from './facts'

const receptacle = (title: string) => labelled(z.enum(receptacleTypes), title)
const plugSchema = z.enum(plugTypes as [string, ...string[]])
const listed = labelled(z.boolean(), 'Listed for this use')

export const transferSwitchSchema = z
  .strictObject({
    kind: z.literal('transfer-switch'),
    ...head,
    positions: labelled(
      z.int().min(1, 'must be 1 or more').max(40, 'must be at most 40'),
      'Positions',
      'count',
    ),
    positionLimitsA: labelled(
      z
        .array(within(1, 100, 'A'))
        .min(1)
        .max(84),
      'Breaker fitted at each position, in order',
      'A',
    ),
    positionDetails: labelled(
      z
        .array(
          z.strictObject({
            position: labelled(z.int().min(1, 'must be 1 or more').max(40), 'Position', 'count'),
            mostA: labelled(within(1, 100, 'A').optional(), 'Breaker at most', 'A'),
            leadSize: labelled(conductorSizeSchema.optional(), 'Leads', 'AWG', { among: conductorSizes }),
            bridge: labelled(
              z.enum(['no', 'handle', 'common trip']).optional(),
              'Bridged with the next',
              'text',
              { names: { no: 'no', handle: 'by its handle', 'common trip': 'by a common trip inside' } },
            ),
          }),
        )
        .max(40)
        .optional(),
      'Positions in detail',
      'text',
      { row: 'Position' },
    ),
    inputA: amps('Input', 200),
    volts: labelled(z.enum(['120', '120/240']), 'Volts'),
    switchesNeutral: labelled(z.boolean(), 'Switches the neutral too'),
    whipIn: labelled(within(1, 200, 'in').optional(), 'Its own leads', 'in'),
    inlet: labelled(z.enum(receptacleTypes).optional(), 'Inlet built in'),
    ratedFor,
    ...tail,
  })
  .check(({ value, issues }) => {
    if (value.positionLimitsA.length !== value.positions)
      issues.push({
        code: 'custom',
        path: ['positionLimitsA'],
        message: `must name a limit for each of the ${value.positions} positions; this names ${value.positionLimitsA.length}`,
        input: value,
      })
    const seen = new Set<number>()
    value.positionDetails?.forEach((detail, n) => {
      const say = (key: string, message: string) =>
        issues.push({ code: 'custom', path: ['positionDetails', n, key], message, input: value })
      const fittedA = value.positionLimitsA[detail.position - 1]
      if (detail.position > value.positions)
        say('position', `is ${detail.position}, but there are ${value.positions}`)
      if (seen.has(detail.position)) say('position', `is described twice: ${detail.position}`)
      seen.add(detail.position)
      if (detail.mostA !== undefined && fittedA !== undefined && fittedA > detail.mostA)
        say('mostA', `is ${detail.mostA} A, but a ${fittedA} A breaker is fitted there`)
    })
  })
export type TransferSwitch = z.infer<typeof transferSwitchSchema>

export const inletSchema = z.strictObject({
  kind: z.literal('inlet'),
  ...head,
  type: receptacle('Type'),
  ratingA: amps('Rated', 200),
  ratedFor,
  ...tail,
})
export type Inlet = z.infer<typeof inletSchema>

export const cordSchema = z.strictObject({
  kind: z.literal('cord'),
  ...head,
  from: labelled(plugSchema, 'Plug'),
  to: receptacle('Connector'),
  size: labelled(conductorSizeSchema, 'Size', 'AWG'),
  lengthFt: labelled(within(1, 500, 'ft'), 'Length', 'ft'),
  ratingA: amps('Rated', 100),
  listed,
  ...tail,
})
export type Cord = z.infer<typeof cordSchema>

export const adapterSchema = z
  .strictObject({
    kind: z.literal('adapter'),
    ...head,
    from: labelled(plugSchema, 'Plug'),
    to: receptacle('Receptacle'),
    ratingA: amps('Rated', 100),
    breakerA: labelled(within(1, 100, 'A').optional(), 'Breaker of its own', 'A'),
    listed,
    ...tail,
  })
  .check(({ value, issues }) => {
    if (value.from === value.to)
      issues.push({
        code: 'custom',
        path: ['to'],
        message: `is the same type as its plug: that is a cord, not an adapter`,
        input: value,
      })
  })
export type Adapter = z.infer<typeof adapterSchema>

export const interlockSchema = z.strictObject({
  kind: z.literal('interlock'),
  ...head,
  /** the panel series it is made for, as the sticker names them */
  fits: labelled(
    z.array(line(60, 1)).min(1, 'must name a panel series').max(30),
    'Made for panel series',
    'text',
  ),
  mostBreakerA: amps('Backfed breaker, at most', 200),
  listed,
  ...tail,
})
export type Interlock = z.infer<typeof interlockSchema>

export const managedPanelSchema = z.strictObject({
  kind: z.literal('managed-panel'),
  ...head,
  inputA: amps('Input'),
  circuits: labelled(z.int().min(1, 'must be 1 or more').max(84), 'Circuits', 'count'),
  circuitLimitA: labelled(within(1, 100, 'A').optional(), 'Limit of each circuit', 'A'),
  sheds: labelled(z.boolean().optional(), 'Sheds by priority'),
  transferSeconds: labelled(within(0, 600, 's').optional(), 'Transfers within', 's'),
  ratedFor,
  ...tail,
})
export type ManagedPanel = z.infer<typeof managedPanelSchema>
