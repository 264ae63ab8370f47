import Button from '@mui/material/Button'
import { legOf, positionText, spaceNamed } from '@/core/panel/positions'
import { mainsOffered, mostSpaces, type Panel, panelSchema } from '@/core/panel/schema'
import { line, within } from '@/core/quantity'
import { Popup } from '../common/Popup'
import { Columns } from '../common/pieces'
import { Choice } from '../form/Choice'
import { EditField, EditFigure, readText } from '../form/EditField'
import { shownPanel, useWorkspace } from '../workspace/store'

const sizes = Array.from({ length: mostSpaces / 2 - 1 }, (_, i) => 2 * i + 4)
const none = 0

/** Everything about a panel that is not one of its breakers; each field saves when left. */
export function PanelFactsDialog({ onClose }: { onClose: () => void }) {
  const panel = useWorkspace(shownPanel)
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
        <EditField
          label="Name"
          value={panel.name}
          read={readText(panelSchema.shape.name)}
          onCommit={name => set({ name })}
        />
        <EditField
          label="Mark before its positions"
          value={panel.mark}
          help="one to four letters, where a job has several panels"
          read={readText(panelSchema.shape.mark)}
          onCommit={mark => set({ mark })}
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
          value={panel.numbering}
          options={[
            { value: 'odd-even', label: 'odd left, even right' },
            { value: 'in sequence', label: 'down the left, then the right' },
          ]}
          onChange={numbering => tell(set({ numbering }))}
        />
      </Columns>
      <Columns least={200}>
        <Choice
          label="Main"
          value={panel.mainA ?? none}
          options={[
            { value: none, label: 'main lugs only' },
            ...mainsOffered.map(value => ({ value, label: `${value} A breaker` })),
          ]}
          onChange={mainA => tell(mainA === none ? set({}, ['mainA']) : set({ mainA }))}
        />
        <Choice
          label="Bus rating"
          value={panel.busA ?? none}
          options={[
            { value: none, label: 'not known' },
            ...mainsOffered.map(value => ({ value, label: `${value} A` })),
          ]}
          onChange={busA => tell(busA === none ? set({}, ['busA']) : set({ busA }))}
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
        <Choice
          label="Feed comes in at the"
          value={panel.feedsFrom}
          options={[
            { value: 'top', label: 'top' },
            { value: 'bottom', label: 'bottom' },
          ]}
          onChange={feedsFrom => tell(set({ feedsFrom }))}
        />
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
      <EditField
        label="Where it hangs"
        value={panel.where}
        read={readText(line(120))}
        onCommit={where => set({ where })}
      />
      <Columns least={200}>
        <Choice
          label="Surroundings"
          value={panel.exposure}
          options={(['unknown', 'indoors', 'damp', 'wet'] as const).map(value => ({
            value,
            label: value === 'unknown' ? 'not known' : value,
          }))}
          onChange={exposure => tell(set({ exposure }))}
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
        <EditField
          label="Maker’s series, from the sticker"
          value={panel.series}
          read={readText(line(60))}
          onCommit={series => set({ series })}
        />
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
          value={panel.tandemSpaces === undefined ? '' : listText(panel, panel.tandemSpaces)}
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

const rowsOf = (panel: Panel, rows: number) =>
  Array.from({ length: rows }, (_, row) => legOf(panel, 2 * row + 1))

const readLegs = (rows: number) => (text: string) => {
  const legs = [...text.replace(/[\sL,]/gi, '')].map(c => (c === '1' ? 'L1' : c === '2' ? 'L2' : null))
  const known = legs.filter(l => l !== null)
  return known.length === rows && legs.length === rows
    ? { value: known }
    : { problem: `must be ${rows} figures, 1 or 2 for each row; this has ${legs.length}` }
}

const readTypes = (text: string) => {
  const types = text
    .split(',')
    .map(t => t.trim())
    .filter(Boolean)
  const parsed = panelSchema.shape.breakerTypes.safeParse(types)
  return parsed.success
    ? { value: parsed.data }
    : { problem: 'must be types of at most 20 characters, commas between' }
}

const listText = (panel: Panel, spaces: readonly number[]) =>
  spaces.length ? spaces.map(s => positionText(panel, { position: s, poles: 1 })).join(', ') : '0'

const readSpaces =
  (panel: Panel) =>
  (text: string): { value: number[] } | { problem: string } => {
    if (text.trim() === '0') return { value: [] }
    const names = text.split(/[\s,]+/).filter(Boolean)
    const spaces = names.flatMap(name => {
      const [from = 0, to = from] = name.split('-').map(Number)
      return Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => spaceNamed(panel, from + i))
    })
    return spaces.length && spaces.every(s => Number.isInteger(s) && s >= 1 && s <= panel.spaces)
      ? { value: [...new Set(spaces)].sort((a, b) => a - b) }
      : { problem: `must be spaces of this panel, such as 17-30 or 17, 19; it has ${panel.spaces}` }
  }
