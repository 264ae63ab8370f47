import { Button } from '@mui/material'
import { markSchema, type Photo, type PhotoMark } from '@/core/ask/evidence'
import { enter, readEntry } from '@/core/job/entry'
import { circuitOf } from '@/core/job/panels'
import { type Plate, plateSchema } from '@/core/loads/nameplate'
import { plateIn } from '@/core/loads/plate-text'
import { fail, fault, ok, parseWith } from '@/core/outcome'
import { Card, Columns } from '../common/pieces'
import { today } from '../common/today'
import { AddLine } from '../form/AddLine'
import { EditField, readText } from '../form/EditField'
import { Form, OtherFaults } from '../form/Form'
import { LineField, NumberField } from '../form/inputs'
import { useSheet } from '../form/useSheet'
import { foundPanel, useWorkspace, useWorkspaceStore } from '../workspace/store'
import { AboutChoice } from './AboutChoice'

interface Props {
  photo: Photo
  mark: PhotoMark
  number: number
  onPut: (mark: PhotoMark) => void
}

/** One mark: what it shows, what is written there, and its way into the job. */
export function MarkCard({ photo, mark, number, onPut }: Props) {
  const act = useWorkspace(s => s.act)
  return (
    <Card component="li" level={3} title={`Mark ${number}`} sx={{ borderColor: 'secondary.main' }}>
      <AboutChoice label="Shows" about={mark.about} onChange={about => onPut({ ...mark, about })} />
      <EditField
        key={`text of ${mark.id}`}
        label="As it is written there"
        value={mark.text}
        read={readText(markSchema.shape.text)}
        onCommit={text => {
          onPut({ ...mark, text })
          return []
        }}
      />
      {mark.about.kind === 'panel' && <EnterBreaker mark={mark} panelId={mark.about.panelId} onPut={onPut} />}
      {(mark.about.kind === 'circuit' || mark.about.kind === 'load') && (
        <TakePlate key={mark.text} mark={mark} about={mark.about} onPut={onPut} />
      )}
      <Button size="small" onClick={() => act({ op: 'removeMark', photoId: photo.id, markId: mark.id })}>
        Remove this mark
      </Button>
    </Card>
  )
}

/** A breaker read off the picture, typed as in the survey. */
function EnterBreaker({ mark, panelId, onPut }: Pick<Props, 'mark' | 'onPut'> & { panelId: string }) {
  const store = useWorkspaceStore()
  const put = (text: string) => {
    const { job, act } = store.getState()
    const entered = enter(job, [readEntry(text)], () => crypto.randomUUID(), [], panelId)
    const [refused] = entered.refused
    if (refused) return [fault('line', refused.why)]
    const faults = act({
      op: 'enterBreakers',
      label: entered.done[0] ?? 'a breaker',
      operations: entered.operations,
    })
    if (!faults.length && entered.lastId)
      onPut({ ...mark, about: { kind: 'circuit', circuitId: entered.lastId }, text })
    return faults
  }
  return (
    <AddLine
      label="Enter it as a breaker"
      help="space, rating, label: 7 20 kitchen counter"
      most={200}
      onAdd={put}
    />
  )
}

const fields = [
  ['volts', 'V'],
  ['amps', 'A'],
  ['watts', 'W'],
  ['horsepower', 'hp'],
  ['lockedRotorA', 'LRA, A'],
] as const

type Typed = Record<(typeof fields)[number][0], number | string> & { name: string }

/** A nameplate read off the picture, put on the load with its provenance. */
function TakePlate({
  mark,
  about,
  onPut,
}: Pick<Props, 'mark' | 'onPut'> & { about: Extract<PhotoMark['about'], { kind: 'circuit' | 'load' }> }) {
  const job = useWorkspace(s => s.job)
  const panel = useWorkspace(foundPanel)
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const found = circuitOf(job, about.circuitId)
  const load = about.kind === 'load' ? found?.circuit.loads.find(l => l.id === about.loadId) : undefined
  const read = plateIn(mark.text)
  const sheet = useSheet<Typed, { name: string; plate: Plate }>({
    values: {
      name: load?.name ?? '',
      ...(Object.fromEntries(fields.map(([key]) => [key, read[key] ?? ''])) as Omit<Typed, 'name'>),
    },
    read: ({ name, ...figures }) => {
      const given = Object.fromEntries(Object.entries(figures).filter(([, value]) => value !== ''))
      if (!Object.keys(given).length) return fail(fault('$', 'Fill in at least one figure of the plate'))
      if (!name.trim()) return fail(fault('name', 'is needed: name the load'))
      // what else stands on it (RLA, MCA, MOP …) is taken too; the fields here go before it
      const others = Object.fromEntries(
        Object.entries(read).filter(([key]) => !fields.some(([field]) => field === key)),
      )
      const plate = parseWith<Plate>(plateSchema, { ...others, ...given })
      return plate.ok ? ok({ name: name.trim(), plate: plate.value }) : plate
    },
    save: ({ name, plate }) => {
      if (!found) return 'Its circuit is gone.'
      const loadId = load?.id ?? crypto.randomUUID()
      const faults = act({
        op: 'takePlate',
        circuitId: found.circuit.id,
        loadId: load?.id ?? null,
        newLoadId: loadId,
        name,
        plate,
        on: today(),
      })
      if (faults.length) return faults
      onPut({ ...mark, about: { kind: 'load', circuitId: found.circuit.id, loadId } })
      say(`Nameplate taken over for ${name}${found.panel === panel ? '' : `, ${found.panel.name}`}`)
      return null
    },
  })
  if (!found) return null
  return (
    <Form sheet={sheet}>
      <h4>Nameplate</h4>
      <LineField name="name" label="Load" />
      <Columns least={90}>
        {fields.map(([key, unit]) => (
          <NumberField key={key} name={key} label={unit} />
        ))}
      </Columns>
      <OtherFaults />
      <Button type="submit" variant="outlined" size="small">
        Put on the load
      </Button>
    </Form>
  )
}
