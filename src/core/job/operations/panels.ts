import { fault } from '../../outcome'
import { type Panel, panelSchema } from '../../panel/schema'
import { assign, clearing, idSchema, operation, words } from './operation'
import { leavePositions, onPanel, panelName } from './reach'

/** The panels as the survey finds them. */

const panelWord = (key: string) => ({ mainA: 'main', busA: 'bus rating' })[key] ?? words(key)

export const panelOperations = {
  setPanel: operation(
    'setPanel',
    {
      /** the first panel when left out, as in addCircuit */
      panelId: idSchema.optional(),
      facts: panelSchema.omit({ id: true, circuits: true }).partial(),
      clear: clearing([
        'mainA',
        'busA',
        'feederId',
        'neutralBonded',
        'clearDepthIn',
        'tandemSpaces',
        'demandW',
      ]),
    },
    {
      apply: ({ panelId, facts, clear }) =>
        onPanel(panelId, panel => {
          assign<Panel>(panel, facts)
          for (const key of clear ?? []) delete panel[key]
        }),
      describe: (before, { panelId, facts, clear }) =>
        `changed ${panelName(before, panelId)}: ${[...Object.keys(facts), ...(clear ?? [])].map(panelWord).join(', ')}`,
    },
  ),
  addPanel: operation(
    'addPanel',
    { panel: panelSchema },
    {
      apply:
        ({ panel }) =>
        job => {
          if (job.panels.some(p => p.id === panel.id))
            return [fault('panels', `already holds a panel ${panel.id}`)]
          job.panels.push(panel)
        },
      describe: (_, { panel }) => `added the panel ${panel.name}`,
    },
  ),
  removePanel: operation(
    'removePanel',
    { panelId: idSchema },
    {
      apply: ({ panelId }) =>
        onPanel(panelId, (panel, job) => {
          if (job.panels.length === 1) return [fault('panels', 'must hold a panel: this is the only one')]
          job.panels = job.panels.filter(p => p.id !== panel.id)
          for (const other of job.panels)
            if (panel.circuits.some(c => c.id === other.feederId)) delete other.feederId
          if (job.hookup.panelId === panel.id) delete job.hookup.panelId
          leavePositions(job)
        }),
      describe: (before, { panelId }) => `removed the panel ${panelName(before, panelId)}`,
    },
  ),
}
