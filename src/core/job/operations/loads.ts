import * as z from 'zod'
import {
  withChosen,
  withCommissioned,
  withLog,
  withoutChoice,
  withoutLog,
  withStart,
} from '../../loads/evidence'
import { figureKeys, loadSchema, startSchema } from '../../loads/load'
import { logSchema } from '../../loads/log'
import { plateSchema } from '../../loads/nameplate'
import { loadFromPlate } from '../../loads/plate'
import { utilitySchema } from '../../loads/utility'
import { fault } from '../../outcome'
import { feedOf } from '../../panel/positions'
import { circuitSchema } from '../../panel/schema'
import { line, within } from '../../quantity'
import { originSchema } from '../../working'
import { idSchema, operation, words } from './operation'
import { circuitName, loadName, onCircuit, onLoad } from './reach'

/** What hangs on the circuits, and where its figures come from. */

const oneLoad = { circuitId: idSchema, loadId: idSchema }

export const loadOperations = {
  putLoad: operation(
    'putLoad',
    { circuitId: idSchema, load: loadSchema },
    {
      apply: ({ circuitId, load }) =>
        onCircuit(circuitId, circuit => {
          const at = circuit.loads.findIndex(l => l.id === load.id)
          if (at < 0) circuit.loads.push(load)
          else circuit.loads[at] = load
        }),
      describe: (before, { circuitId, load }) =>
        `set the load ${load.name} on ${circuitName(before, circuitId)}`,
    },
  ),
  removeLoad: operation('removeLoad', oneLoad, {
    apply: ({ circuitId, loadId }) =>
      onCircuit(circuitId, circuit => {
        circuit.loads = circuit.loads.filter(l => l.id !== loadId)
      }),
    describe: (before, { circuitId }) => `removed a load from ${circuitName(before, circuitId)}`,
  }),
  takePlate: operation(
    'takePlate',
    {
      circuitId: idSchema,
      loadId: idSchema.nullable(),
      newLoadId: idSchema,
      name: line(60, 1),
      plate: plateSchema,
      on: z.iso.date(),
    },
    {
      apply: ({ circuitId, plate, loadId, newLoadId, name, on }) =>
        onCircuit(circuitId, (circuit, panel) => {
          const was = circuit.loads.find(l => l.id === loadId)
          const load = loadFromPlate(plate, {
            id: was?.id ?? newLoadId,
            name,
            on,
            volts: feedOf(panel, circuit) === 'both' ? 240 : 120,
            was,
          })
          if (was) circuit.loads[circuit.loads.indexOf(was)] = load
          else circuit.loads.push(load)
        }),
      describe: (before, { circuitId, name }) =>
        `took the nameplate of ${name} for ${circuitName(before, circuitId)}`,
    },
  ),
  takeLog: operation(
    'takeLog',
    { ...oneLoad, log: logSchema },
    {
      apply: said => onLoad(said, load => withLog(load, said.log)),
      describe: (before, said) => `took the log ${said.log.name} for ${loadName(before, said)}`,
    },
  ),
  removeLog: operation(
    'removeLog',
    { ...oneLoad, logId: idSchema },
    {
      apply: said => onLoad(said, load => withoutLog(load, said.logId)),
      describe: (before, said) => `removed a log of ${loadName(before, said)}`,
    },
  ),
  /** running watts as they were read in the finished house */
  takeCommissioned: operation(
    'takeCommissioned',
    { ...oneLoad, W: within(0, 20_000, 'W'), on: z.iso.date(), document: line(120, 1) },
    {
      apply: said => onLoad(said, load => withCommissioned(load, said.W, said.on, said.document)),
      describe: (before, said) =>
        `took ${Math.round(said.W)} W over, as commissioned, for ${loadName(before, said)}`,
    },
  ),
  /** ohms of the whole way to the last outlet, there and back */
  takeLoop: operation(
    'takeLoop',
    { circuitId: idSchema, loopOhms: circuitSchema.shape.loopOhms.unwrap() },
    {
      apply: ({ circuitId, loopOhms }) =>
        onCircuit(circuitId, circuit => {
          circuit.loopOhms = loopOhms
        }),
      describe: (before, { circuitId }) =>
        `took over the ohms of the way to ${circuitName(before, circuitId)}`,
    },
  ),
  takeStart: operation(
    'takeStart',
    { ...oneLoad, start: startSchema },
    {
      apply: said => onLoad(said, load => withStart(load, said.start)),
      describe: (before, said) => `took the start of ${loadName(before, said)}`,
    },
  ),
  /** which source of a figure counts; null: the best again */
  chooseFigure: operation(
    'chooseFigure',
    { ...oneLoad, figure: z.enum(figureKeys), from: originSchema.nullable() },
    {
      apply: said =>
        onLoad(said, load => {
          const was = load[said.figure]
          const now = said.from === null ? withoutChoice(was) : withChosen(was, said.from)
          return now
            ? { ...load, [said.figure]: now }
            : [fault(said.figure, `has no figure from ${said.from} to choose`)]
        }),
      describe: (before, said) =>
        said.from
          ? `chose the ${said.from} figure (${words(said.figure).trim()}) for ${loadName(before, said)}`
          : `left the figure (${words(said.figure).trim()}) of ${loadName(before, said)} to the best source`,
    },
  ),
  /** what the utility's data say of the house, and the highest demand of a panel from them */
  takeUtility: operation(
    'takeUtility',
    { utility: utilitySchema, panelId: idSchema.optional(), peakFactor: within(1, 3, '×') },
    {
      apply:
        ({ utility, panelId, peakFactor }) =>
        job => {
          job.utility = utility
          const panel = panelId === undefined ? undefined : job.panels.find(p => p.id === panelId)
          if (panelId !== undefined && !panel) return [fault('panels', `no longer hold the panel ${panelId}`)]
          if (panel)
            panel.demandW = {
              value: utility.demand.peakW,
              from: 'utility data',
              on: utility.on,
              document: utility.document,
              ...(peakFactor > 1 && { peakFactor }),
            }
        },
      describe: (_, { utility }) => `took the utility data ${utility.document}`,
    },
  ),
  dropUtility: operation(
    'dropUtility',
    {},
    {
      apply: () => job => {
        const { utility } = job
        if (!utility) return
        for (const panel of job.panels) if (panel.demandW?.document === utility.document) delete panel.demandW
        delete job.utility
      },
      describe: () => 'took the utility data away',
    },
  ),
}
