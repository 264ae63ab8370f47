import { Button } from '@mui/material'
import { library } from '@/core/loads/library'
import { loadGroups, type Typical, typicalSchema } from '@/core/loads/typical'
import { parseWith } from '@/core/outcome'
import { call } from '../api'
import { Columns, Row } from '../common/pieces'
import { FormDialog } from '../form/Form'
import { CheckField, ChoiceField, LineField, NumberField } from '../form/inputs'
import { type Said, useSheet } from '../form/useSheet'
import { natures } from '../loads/natures'
import type { FirmTypical } from './useLibrary'

interface Props {
  typical: Typical | null
  /** of the firm's own, 0 where ours stands or it is new */
  version: number
  onChanged: (loads: FirmTypical[]) => void
  onClose: () => void
}

const blank: Typical = {
  id: '',
  name: '',
  group: 'outlets and comfort',
  volts: 120,
  runningW: { low: 0, likely: 0, high: 0 },
  powerFactor: 1,
  idleW: 0,
  duty: { winter: 0.3, between: 0.3, summer: 0.3 },
  dutyUnsure: 0.4,
  nature: 'plain',
  pattern: { kind: 'cycling' },
  byHand: false,
  deferrable: false,
  needsBond: false,
  words: '',
}

const idFrom = (name: string) =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 40) || 'load'

type Typed = number | string
type Band = Record<'low' | 'likely' | 'high', Typed>
type Values = Omit<Typical, 'runningW' | 'start'> & { runningW: Band; start: Band }

/** What was not said of a band is its likely figure. */
const filled = ({ low, likely, high }: Band) => ({
  low: low === '' ? likely : low,
  likely,
  high: high === '' ? likely : high,
})
const nothing = { low: '', likely: '', high: '' }

/** A typical load of the firm: what is changed here stands in place of ours, for this firm alone. */
export function TypicalDialog({ typical, version, onChanged, onClose }: Props) {
  const was = typical ?? blank
  const ours = library.some(t => t.id === was.id)
  const send = async (body: unknown): Promise<Said> => {
    const answer = await call<{ loads: FirmTypical[] }>('/api/loads', 'POST', body)
    if (!answer.ok) return answer.faults.length ? answer.faults : answer.message
    onChanged(answer.data.loads)
    return null
  }
  const sheet = useSheet<Values, Typical>({
    values: { ...was, runningW: typical ? was.runningW : nothing, start: was.start ?? nothing },
    read: ({ start, ...typed }) =>
      parseWith(typicalSchema, {
        ...typed,
        id: was.id || idFrom(typed.name),
        runningW: filled(typed.runningW),
        idleW: Number(typed.idleW) === 0 ? 0 : typed.idleW,
        dutyUnsure: Number(typed.dutyUnsure) === 0 ? 0 : typed.dutyUnsure,
        ...(start.likely !== '' && { start: filled(start) }),
      }),
    save: next => send({ act: 'put', typical: next, version }),
  })
  const drop = async () => {
    const said = await send({ act: 'drop', id: was.id, version })
    const message = typeof said === 'string' ? said : said?.[0]?.message
    if (message) sheet.form.setError('root', { message })
  }
  return (
    <FormDialog
      sheet={sheet}
      title={typical ? typical.name : 'New typical load'}
      save="Keep for the firm"
      onClose={onClose}
      maxWidth="md"
      extra={
        version > 0 && (
          <Button color="error" onClick={() => void drop()}>
            {ours ? 'Back to the usual figures' : 'Remove'}
          </Button>
        )
      }
    >
      <Columns least={170}>
        <LineField name="name" label="Name" />
        <ChoiceField name="group" label="Group" options={loadGroups} />
        <ChoiceField
          name="volts"
          label="Volts"
          options={[
            { value: 120, label: '120 V' },
            { value: 240, label: '240 V' },
          ]}
        />
        <ChoiceField name="nature" label="Motor" options={natures} />
        <NumberField name="runningW.likely" label="Running, likely" unit="W" />
        <NumberField name="runningW.low" label="at least" unit="W" />
        <NumberField name="runningW.high" label="at most" unit="W" />
        <NumberField name="idleW" label="Idle" unit="W" />
        <NumberField name="powerFactor" label="Power factor" />
        <NumberField name="start.likely" label="Start" sign="× running" help="empty: none to speak of" />
        <NumberField name="start.low" label="Start, at least" sign="×" />
        <NumberField name="start.high" label="Start, at most" sign="×" />
        <NumberField name="duty.winter" label="Runs in winter" unit="fraction" />
        <NumberField name="duty.between" label="in spring and autumn" unit="fraction" />
        <NumberField name="duty.summer" label="in summer" unit="fraction" />
        <NumberField name="dutyUnsure" label="give or take" unit="fraction" />
        <LineField name="words" label="Other words for it" />
      </Columns>
      <Row>
        <CheckField name="byHand" label="Switched by a person, one at a time" />
        <CheckField name="deferrable" label="Can wait some hours" />
        <CheckField name="needsBond" label="A burner that proves its flame through ground" />
      </Row>
    </FormDialog>
  )
}
