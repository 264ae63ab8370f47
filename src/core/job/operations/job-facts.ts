import * as z from 'zod'
import { outageSchema } from '../../ask/outage-asked'
import { editionSchema } from '../../editions'
import { line } from '../../quantity'
import { quantity } from '../../units/format'
import { acceptanceSchema } from '../acceptance'
import { type Calculation, calculationSchema, steps } from '../schema'
import { assign, clearing, idSchema, operation } from './operation'

/** Facts of the job as a whole, the outage it is made for, what a person accepts, calculations kept with it. */

const factsSchema = z.strictObject({
  title: line(80, 1),
  place: line(120),
  edition: editionSchema,
  step: z.enum(steps),
})

const calculationName = ({ calculator, note }: Calculation) => (note ? `${calculator} (${note})` : calculator)

export const jobOperations = {
  setJobFacts: operation(
    'setJobFacts',
    { facts: factsSchema.partial() },
    {
      apply:
        ({ facts }) =>
        job =>
          assign(job, facts),
      describe: (_, { facts }) => `changed the job’s ${Object.keys(facts).join(', ')}`,
    },
  ),
  setOutage: operation(
    'setOutage',
    {
      facts: outageSchema.partial(),
      clear: clearing([
        'beginsH',
        'season',
        'outdoorC',
        'latitudeDeg',
        'cloudFraction',
        'shedding',
        'heedFraction',
        'restartMinutes',
        'weather',
      ]),
    },
    {
      apply:
        ({ facts, clear }) =>
        job => {
          assign(job.outage, facts)
          for (const key of clear ?? []) delete job.outage[key]
        },
      describe: (_, { facts: { hours, reserveFraction } }) => {
        if (hours !== undefined) return `set the outage to ${quantity(hours, 'h')}`
        if (reserveFraction !== undefined)
          return `set the reserve to ${quantity(reserveFraction, 'fraction')}`
        return 'changed the outage'
      },
    },
  ),
  acceptFinding: operation(
    'acceptFinding',
    { acceptance: acceptanceSchema },
    {
      apply:
        ({ acceptance }) =>
        job => {
          job.accepted = [...(job.accepted ?? []).filter(a => a.key !== acceptance.key), acceptance]
        },
      describe: (_, { acceptance }) => `accepted ${acceptance.key.split('|')[0]}: ${acceptance.reason}`,
    },
  ),
  withdrawAcceptance: operation(
    'withdrawAcceptance',
    { key: acceptanceSchema.shape.key },
    {
      apply:
        ({ key }) =>
        job => {
          job.accepted = job.accepted?.filter(a => a.key !== key)
        },
      describe: (_, { key }) => `took back the acceptance of ${key.split('|')[0]}`,
    },
  ),
  putCalculation: operation(
    'putCalculation',
    { calculation: calculationSchema },
    {
      apply:
        ({ calculation }) =>
        job => {
          const at = job.calculations.findIndex(c => c.id === calculation.id)
          if (at < 0) job.calculations.push(calculation)
          else job.calculations[at] = calculation
        },
      describe: (_, { calculation }) => `kept the calculation ${calculationName(calculation)}`,
    },
  ),
  removeCalculation: operation(
    'removeCalculation',
    { calculationId: idSchema },
    {
      apply:
        ({ calculationId }) =>
        job => {
          job.calculations = job.calculations.filter(c => c.id !== calculationId)
        },
      describe: (before, { calculationId }) => {
        const calculation = before.calculations.find(c => c.id === calculationId)
        return `removed the calculation ${calculation ? calculationName(calculation) : ''}`.trim()
      },
    },
  ),
}
