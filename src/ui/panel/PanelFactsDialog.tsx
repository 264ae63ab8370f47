import { Button } from '@mui/material'
import type * as z from 'zod'
import { readLegs, readSpaces, readTypes, rowsOf, spacesText } from '@/core/panel/facts-text'
import { positionText } from '@/core/panel/positions'
import { mainsOffered, mostSpaces, type Panel, panelSchema } from '@/core/panel/schema'
import { line, within } from '@/core/quantity'
import { Popup } from '../common/Popup'
import { Columns } from '../common/pieces'
import { Choice } from '../form/Choice'
import { EditField, EditFigure, readText } from '../form/EditField'
import { foundPanel, useWorkspace } from '../workspace/store'

const sizes = Array.from({ length: mostSpaces / 2 - 1 }, (_, i) => 2 * i + 4)
const none = 0

/** Everything about a panel that is not one of its breakers; each field saves when left. */
export function PanelFactsDialog({ onClose }: { onClose: () => void }) {
  const panel = useWorkspace(foundPanel)
  const job = useWorkspace(s => s.job)
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const showPanel = useWorkspace(s => s.showPanel)
  const panelId = panel.id
  type Facts = Extract<Parameters<typeof act>[0], { op: 'setPanel' }>['facts']
  type Clear = Extract<Parameters<typeof act>[0], { op: 'setPanel' }>['clear']
  const set = (facts: Facts, clear?: Clear) =>
    act({ op: 'setPanel', panelId, facts, ...(clear && { clear }) })
  const tell = (faults: ReturnType<typeof act>) => faults[0] && say(`Not changed: ${faults[0].message}`)
  const text = (key: 'name' | 'mark' | 'where' | 'series', schema: z.ZodType<string>) => ({
    value: panel[key],
    read: readText(schema),
    onCommit: (value: string) => set({ [key]: value }),
  })
  const chosen = <K extends 'numbering' | 'feedsFrom' | 'exposure'>(key: K) => ({
    value: panel[key],
    onChange: (value: Panel[K]) => tell(set({ [key]: value })),
  })
  const rated = (key: 'mainA' | 'busA') => ({
    value: panel[key] ?? none,
    onChange: (value: number) => tell(value === none ? set({}, [key]) : set({ [key]: value })),
  })
  const only = job.panels.length === 1
  const tiedTo = (job.hookup.panelId ?? job.panels[0]?.id) === panelId
  const fed = panel.supply === 'fed from another panel'
  const feeders = job.panels
    .filter(p => p.id !== panelId)
    .flatMap(p =>
      p.circuits
        .filter(c => c.poles === 2)
        .map(c => ({ value: c.id, label: `${p.name}: ${positionText(p, c)} ${c.label || 'unlabelled'}` })),
    )
  return (
    <Popup
      title={panel.name}
      close="Done"
      onClose={onClose}
      actions={
        <>
          {!only && (
            <Button
              color="error"
              sx={{ marginRight: 'auto' }}
              onClick={() => {
                const [fault] = act({ op: 'removePanel', panelId })
                if (fault) return say(`Not removed: ${fault.message}`)
                const left = job.panels.find(p => p.id !== panelId)
                if (left) showPanel(left.id)
                say(`Removed ${panel.name}. Undo brings it back.`)
                onClose()
              }}
            >
              Remove this panel
            </Button>
          )}
          {!tiedTo && (
            <Button onClick={() => tell(act({ op: 'setHookup', facts: { panelId } }))}>
              Tie the source here
            </Button>
          )}
        </>
      }
    >
      <Columns least={200}>
        <EditField label="Name" {...text('name', panelSchema.shape.name)} />
        <EditField
          label="Mark before its positions"
          help="one to four letters, where a job has several panels"
          {...text('mark', panelSchema.shape.mark)}
        />
      </Columns>
      <Columns least={200}>
        <Choice
          label="Spaces"
          value={panel.spaces}
          options={sizes.map(value => ({ value, label: `${value}` }))}
          onChange={spaces =>
            tell(
              set({
                spaces,
                ...(typeof panel.busLegs !== 'string' && { busLegs: rowsOf(panel, spaces / 2) }),
              }),
            )
          }
        />
        <Choice
          label="Numbered"
          options={[
            { value: 'odd-even', label: 'odd left, even right' },
            { value: 'in sequence', label: 'down the left, then the right' },
          ]}
          {...chosen('numbering')}
        />
      </Columns>
      <Columns least={200}>
        <Choice
          label="Main"
          options={[
            { value: none, label: 'main lugs only' },
            ...mainsOffered.map(value => ({ value, label: `${value} A breaker` })),
          ]}
          {...rated('mainA')}
        />
        <Choice
          label="Bus rating"
          options={[
            { value: none, label: 'not known' },
            ...mainsOffered.map(value => ({ value, label: `${value} A` })),
          ]}
          {...rated('busA')}
        />
      </Columns>
      <Columns least={200}>
        <Choice
          label="Fed"
          value={panel.supply}
          options={[
            { value: 'service', label: 'by the service' },
            { value: 'fed from another panel', label: 'from another panel' },
          ]}
          onChange={supply => tell(set({ supply }, supply === 'service' ? ['feederId'] : undefined))}
        />
        <Choice label="Feed comes in at the" options={['top', 'bottom']} {...chosen('feedsFrom')} />
      </Columns>
      {fed && (
        <Columns least={200}>
          <Choice
            label="Its feeder"
            value={panel.feederId ?? ''}
            options={[{ value: '', label: 'not in this job' }, ...feeders]}
            onChange={feederId => tell(feederId ? set({ feederId }) : set({}, ['feederId']))}
          />
        </Columns>
      )}
      <Choice
        label="Neutral and ground in it"
        value={panel.neutralBonded === undefined ? 'unknown' : panel.neutralBonded ? 'joined' : 'apart'}
        options={[
          { value: 'unknown', label: 'not looked at' },
          { value: 'apart', label: fed ? 'kept apart' : 'apart, as found' },
          { value: 'joined', label: 'joined, as found' },
        ]}
        onChange={v =>
          tell(v === 'unknown' ? set({}, ['neutralBonded']) : set({ neutralBonded: v === 'joined' }))
        }
      />
      <Columns least={200}>
        <Choice
          label="Bus legs"
          value={typeof panel.busLegs === 'string' ? panel.busLegs : 'rows'}
          options={[
            { value: 'L1', label: 'alternating, first row L1' },
            { value: 'L2', label: 'alternating, first row L2' },
            { value: 'rows', label: 'row by row, as measured' },
          ]}
          onChange={v =>
            tell(set({ busLegs: v === 'rows' ? rowsOf(panel, panel.spaces / 2) : v === 'L2' ? 'L2' : 'L1' }))
          }
        />
        {typeof panel.busLegs !== 'string' && (
          <EditField
            label="Legs from the top"
            value={panel.busLegs.map(l => l.slice(1)).join(' ')}
            help="1 or 2 for each row"
            read={readLegs(panel.spaces / 2)}
            onCommit={busLegs => set({ busLegs })}
          />
        )}
      </Columns>
      <EditField label="Where it hangs" {...text('where', line(120))} />
      <Columns least={200}>
        <Choice
          label="Surroundings"
          options={(['unknown', 'indoors', 'damp', 'wet'] as const).map(value => ({
            value,
            label: value === 'unknown' ? 'not known' : value,
          }))}
          {...chosen('exposure')}
        />
        <EditFigure
          label="Clear depth in front"
          value={panel.clearDepthIn}
          unit="in"
          schema={within(0, 240, 'in')}
          onCommit={clearDepthIn => set({ clearDepthIn })}
          onEmpty={() => set({}, ['clearDepthIn'])}
        />
      </Columns>
      <Columns least={200}>
        <EditField label="Maker’s series, from the sticker" {...text('series', line(60))} />
        <EditField
          label="Breaker types it permits"
          value={panel.breakerTypes.join(', ')}
          help="as on the sticker, commas between"
          read={readTypes}
          onCommit={breakerTypes => set({ breakerTypes })}
        />
      </Columns>
      <Columns least={200}>
        <EditField
          label="Spaces that take tandems"
          value={panel.tandemSpaces === undefined ? '' : spacesText(panel, panel.tandemSpaces)}
          help="by the sticker; 0 for none, empty while not known"
          read={text => (text.trim() ? readSpaces(panel)(text) : { value: null })}
          onCommit={v => (v === null ? set({}, ['tandemSpaces']) : set({ tandemSpaces: v }))}
        />
        <EditFigure
          label="Highest demand of a year"
          value={panel.demandW?.value}
          unit="W"
          help="from the utility’s data"
          schema={within(0, 200_000, 'W')}
          onCommit={value => set({ demandW: { value, from: 'utility data' } })}
          onEmpty={() => set({}, ['demandW'])}
        />
      </Columns>
    </Popup>
  )
}
