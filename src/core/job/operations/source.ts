import { current, type Draft } from 'immer'
import * as z from 'zod'
import { type UnitEquipment, unitEquipmentSchema } from '../../equipment/source-kinds'
import { fault } from '../../outcome'
import { legSchema } from '../../panel/leg'
import { arrangementNames, jobArrangements } from '../../source/arrangement'
import {
  arraySchema,
  hindersArrangement,
  rangeExtenderSchema,
  type Source,
  sourceSchema,
  type Unit,
  unitSchema,
  voltsOf,
} from '../../source/design'
import type { Job } from '../schema'
import { assign, clearing, idSchema, operation, put } from './operation'
import { onSource } from './reach'

/** What delivers. */

const unitName = (job: Job, unitId: string) =>
  job.source?.units.find(u => u.id === unitId)?.equipment.name ?? 'a unit'

export const sourceOperations = {
  /** one unit as the whole source; null takes the source away */
  chooseUnit: operation(
    'chooseUnit',
    {
      equipment: unitEquipmentSchema.nullable(),
      bank: unitSchema.shape.bank,
      owned: z.boolean().optional(),
    },
    {
      apply:
        ({ equipment, bank, owned = false }) =>
        job => {
          if (!equipment) {
            delete job.source
            return
          }
          const was = job.source
          const unit: Unit = {
            id: 'u1',
            equipment,
            expansionUnits: Math.min(was?.units[0]?.expansionUnits ?? 0, expansionsOf(equipment)),
            ...(bank && { bank }),
            owned,
          }
          job.source = arranged({
            ...was,
            units: [unit],
            arrangement: was?.arrangement ?? usualArrangement(equipment),
            liveLeg: was?.liveLeg ?? 'L1',
          })
        },
      describe: (_, { equipment }) =>
        equipment ? `chose the ${equipment.name} as source` : 'took the source away',
    },
  ),
  /** how long it takes over by itself, as it was timed */
  timeTransfer: operation(
    'timeTransfer',
    { transferS: sourceSchema.shape.transferS.unwrap() },
    {
      apply: ({ transferS }) =>
        onSource(source => {
          source.transferS = transferS
        }),
      describe: (_, { transferS }) => `timed the transfer: ${transferS.value} s`,
    },
  ),
  addUnit: operation(
    'addUnit',
    { unit: unitSchema },
    {
      apply: ({ unit }) =>
        onSource(source => {
          source.units.push(unit)
          if (hindersArrangement(source, source.arrangement)) source.arrangement = 'independent'
          rearrange(source)
        }),
      describe: (_, { unit }) => `added a ${unit.equipment.name}`,
    },
  ),
  editUnit: operation(
    'editUnit',
    { unitId: idSchema, facts: unitSchema.omit({ id: true }).partial() },
    {
      apply: ({ unitId, facts }) =>
        onSource(source => {
          const unit = source.units.find(u => u.id === unitId)
          if (!unit) return [fault('source.units', 'no longer hold that unit')]
          assign<Unit>(unit, facts)
          if (unit.equipment.kind !== 'inverter') delete unit.bank
          unit.expansionUnits = Math.min(
            unit.expansionUnits,
            facts.equipment ? expansionsOf(unit.equipment) : 99,
          )
          if (facts.equipment) rearrange(source)
        }),
      describe: (before, { unitId }) => `changed ${unitName(before, unitId)}`,
    },
  ),
  removeUnit: operation(
    'removeUnit',
    { unitId: idSchema },
    {
      apply: ({ unitId }) =>
        onSource((source, job) => {
          source.units = source.units.filter(u => u.id !== unitId)
          source.arrays = source.arrays?.filter(a => a.unitId !== unitId)
          if (source.units.length) rearrange(source)
          else delete job.source
        }),
      describe: (before, { unitId }) => `took ${unitName(before, unitId)} away`,
    },
  ),
  setExpansionUnits: operation(
    'setExpansionUnits',
    { count: z.int('must be a whole number') },
    {
      apply: ({ count }) =>
        onSource(source => {
          // two units of a pair are kept alike
          for (const unit of source.units) unit.expansionUnits = count
        }),
      describe: (_, { count }) => `set the expansion units to ${count}`,
    },
  ),
  setArrangement: operation(
    'setArrangement',
    {
      arrangement: z.enum(jobArrangements),
      liveLeg: legSchema.optional(),
      /** what the arrangement cannot be without */
      combiner: sourceSchema.shape.combiner,
      autotransformer: sourceSchema.shape.autotransformer,
      second: unitSchema.optional(),
    },
    {
      apply: ({ arrangement, liveLeg, combiner, autotransformer, second }) =>
        onSource(source => {
          if (second && source.units.length === 1) source.units.push(second)
          if (combiner) source.combiner = combiner
          if (autotransformer) source.autotransformer = autotransformer
          if (arrangement !== 'combined' && arrangement !== 'independent') source.units.splice(1)
          source.arrangement = arrangement
          source.liveLeg = liveLeg ?? source.liveLeg
          source.arrays = source.arrays?.filter(a => source.units.some(u => u.id === a.unitId))
        }),
      describe: (_, { arrangement, liveLeg }) =>
        `arranged as ${arrangementNames[arrangement]}${liveLeg && arrangement === 'one-leg' ? ` (${liveLeg})` : ''}`,
    },
  ),
  setSource: operation(
    'setSource',
    {
      facts: sourceSchema.pick({ charging: true, stands: true }).partial(),
      clear: clearing(['combiner', 'autotransformer', 'generator', 'charging', 'stands']),
    },
    {
      apply: ({ facts, clear }) =>
        onSource(source => {
          assign(source, facts)
          for (const key of clear ?? []) delete source[key]
          rearrange(source)
        }),
      describe: () => 'changed where or how the source is kept and charged',
    },
  ),
  putGenerator: operation(
    'putGenerator',
    { generator: rangeExtenderSchema },
    {
      apply: ({ generator }) =>
        onSource(source => {
          source.generator = generator
        }),
      describe: (_, { generator }) => `set the generator ${generator.equipment.name}`,
    },
  ),
  putArray: operation(
    'putArray',
    { array: arraySchema },
    {
      apply: ({ array }) =>
        onSource(source => {
          source.arrays = put(source.arrays, array)
        }),
      describe: (_, { array }) => `set ${array.series * array.parallel} ${array.module.name}`,
    },
  ),
  removeArray: operation(
    'removeArray',
    { arrayId: idSchema },
    {
      apply: ({ arrayId }) =>
        onSource(source => {
          source.arrays = source.arrays?.filter(a => a.id !== arrayId)
        }),
      describe: () => 'took solar modules away',
    },
  ),
}

const usualArrangement = (unit: UnitEquipment) => (voltsOf(unit) === '120/240' ? 'split-phase' : 'tied')
const expansionsOf = (unit: UnitEquipment) => (unit.kind === 'station' ? (unit.expansion?.most ?? 0) : 0)

/** The source with what no longer fits its units gone: arrays of units that left, an arrangement that cannot be. */
function rearrange(source: Draft<Source>) {
  Object.assign(source, arranged(current(source)))
}

function arranged(source: Source): Source {
  const [first] = source.units
  if (!first || !hindersArrangement(source, source.arrangement)) return source
  const fitting = source.units.length > 1 ? 'independent' : usualArrangement(first.equipment)
  return { ...source, arrangement: fitting, arrays: source.arrays?.filter(a => a.unitId === first.id) }
}
