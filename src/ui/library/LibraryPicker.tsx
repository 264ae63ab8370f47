import { Button, TextField } from '@mui/material'
import { useState } from 'react'
import { conditionsOf } from '@/core/ask/outage-asked'
import { placeText } from '@/core/job/panels'
import type { Load } from '@/core/loads/load'
import { findTypical, loadFromTypical, typicalDayWh } from '@/core/loads/typical'
import { feedOf } from '@/core/panel/positions'
import { quantity } from '@/core/units/format'
import { PickList } from '../common/PickList'
import { Popup } from '../common/Popup'
import { Quiet } from '../common/pieces'
import { Choice } from '../form/Choice'
import { QueryRoot } from '../query'
import { useWorkspace } from '../workspace/store'
import { useLibrary } from './useLibrary'

interface Props {
  /** the circuit it goes on; missing: to be chosen */
  circuitId?: string
  onClose: () => void
  onAdded: (loadId: string) => void
}

const shown = 40

/** Finds a typical load by any word and puts it on a circuit; an empty one for what the library does not have. */
export const LibraryPicker = (props: Props) => (
  <QueryRoot>
    <Picker {...props} />
  </QueryRoot>
)

function Picker({ circuitId: given, onClose, onAdded }: Props) {
  const job = useWorkspace(s => s.job)
  const act = useWorkspace(s => s.act)
  const { entries, trouble } = useLibrary()
  const [asked, setAsked] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const circuits = job.panels.flatMap(panel =>
    panel.circuits
      .filter(c => c.purpose === 'loads')
      .map(c => ({
        value: c.id,
        label: `${placeText(job, panel, c)} ${c.label || 'unlabelled'}${c.picked ? '' : ' (not picked)'}`,
        volts: feedOf(panel, c) === 'both' ? 240 : 120,
        picked: c.picked,
      })),
  )
  const [circuitId, setCircuitId] = useState(
    given ?? circuits.find(c => c.picked)?.value ?? circuits[0]?.value ?? '',
  )
  const volts = circuits.find(c => c.value === circuitId)?.volts ?? 120
  const { season } = conditionsOf(job)
  const typical = entries.map(e => e.typical)
  const found = findTypical(typical, asked).sort(
    (a, b) => Number(b.volts === volts) - Number(a.volts === volts),
  )

  const put = (load: Load) => {
    const [fault] = act({ op: 'putLoad', circuitId, load })
    if (fault) setProblem(`Not added: ${fault.message}`)
    else onAdded(load.id)
  }
  const blank = (): Load => ({
    id: crypto.randomUUID(),
    name: asked.trim().slice(0, 60) || 'New load',
    runningW: { value: 100, from: 'assumed' },
    powerFactor: { value: 1, from: 'assumed' },
    dutyFraction: { value: 1, from: 'assumed' },
    idleW: { value: 0, from: 'assumed' },
    nature: 'plain',
    byHand: false,
    needsBond: false,
  })
  return (
    <Popup
      title="Add a load"
      onClose={onClose}
      actions={
        <Button onClick={() => put(blank())} disabled={!circuitId}>
          Enter one myself
        </Button>
      }
    >
      {!given && (
        <Choice label="On the circuit" value={circuitId} options={circuits} onChange={setCircuitId} />
      )}
      <TextField
        label="What is it"
        placeholder="refrigerator, well pump, router"
        value={asked}
        autoFocus
        onChange={e => setAsked(e.target.value)}
        slotProps={{ htmlInput: { autoComplete: 'off' } }}
      />
      {trouble && <p role="alert">{trouble}</p>}
      {problem && <p role="alert">{problem}</p>}
      <PickList
        label="Typical loads"
        items={found.slice(0, shown)}
        idOf={t => t.id}
        first={t => (
          <>
            <b>{t.name}</b>
            {t.volts !== volts && ` (usually ${t.volts} V)`}
          </>
        )}
        second={t =>
          `${quantity(t.runningW.likely, 'W')} running (${quantity(t.runningW.low, 'W')} to ${quantity(t.runningW.high, 'W')}), ${quantity(typicalDayWh(t, season), 'Wh')} a day${t.start ? `, starts at ${t.start.likely} times running` : ''}`
        }
        onPick={t =>
          put(loadFromTypical(t, crypto.randomUUID(), season, entries.find(e => e.typical === t)?.firms))
        }
      />
      {found.length > shown && <Quiet>{found.length - shown} more: type a word of it.</Quiet>}
      {!found.length && <p>Nothing in the library answers to that: enter it yourself.</p>}
    </Popup>
  )
}
