import { Alert, Button } from '@mui/material'
import { useState } from 'react'
import type { Finding } from '@/core/checks/finding'
import { type OtherwiseKey, otherwiseFacts, otherwiseKeys, otherwiseOperations } from '@/core/order/otherwise'
import type { Task } from '@/core/order/task'
import { type Fault, fail, fault, ok } from '@/core/outcome'
import { Popup } from '../common/Popup'
import { Columns, Quiet } from '../common/pieces'
import { Form, OtherFaults } from '../form/Form'
import { LineField, NumberField } from '../form/inputs'
import { useSheet } from '../form/useSheet'
import { useWorkspaceStore } from '../workspace/store'

interface Typed {
  facts: Partial<Record<OtherwiseKey, string | number>>
  why: string
}

interface Props {
  task: Task
  onClose: () => void
  /** writes the task down as done so; the faults where it cannot be */
  onDone: (otherwise: string) => readonly Fault[]
}

/** Done in another way than planned: what differs, with its reason; the plan follows, and the checks run at once. */
export function Otherwise({ task, onClose, onDone }: Props) {
  const store = useWorkspaceStore()
  const [change] = task.changes
  const [planned] = useState(() => (change === undefined ? {} : otherwiseFacts(store.getState().job, change)))
  const [came, setCame] = useState<Finding[] | null>(null)
  const keys = Object.keys(planned) as OtherwiseKey[]
  const sheet = useSheet<Typed, Typed>({
    values: { facts: planned, why: '' },
    keep: `spillway.otherwise.${task.id}`,
    read: typed => {
      const wrong = keys.filter(k => k !== 'size' && typeof typed.facts[k] !== 'number')
      const faults = wrong.map(k => fault(`facts.${k}`, 'must be a number'))
      if (!typed.why.trim()) faults.push(fault('why', 'must say what was done, and why'))
      return faults.length ? fail(...faults) : ok(typed)
    },
    save: ({ facts, why }) => {
      const { job, act } = store.getState()
      const before = new Set(store.getState().evaluation.findings.map(f => f.key))
      const operations = change === undefined ? [] : otherwiseOperations(job, change, facts)
      const faults = operations.length ? act(...operations) : []
      if (faults.length) return faults.map(f => ({ ...f, path: '$', message: `${f.path}: ${f.message}` }))
      const said = onDone(why.trim().slice(0, 200))
      if (!said.length) setCame(store.getState().evaluation.findings.filter(f => !before.has(f.key)))
      return said
    },
  })
  if (came)
    return (
      <Popup title="Written down as it was done" close="Go on" onClose={onClose}>
        {came.length ? (
          <>
            <p>The checks say of the house as it is now:</p>
            {came.map(f => (
              <Alert key={f.key} severity={f.severity === 'stop' ? 'error' : 'warning'}>
                <b>{f.sentence}</b> {f.remedy}
              </Alert>
            ))}
          </>
        ) : (
          <p>The checks ran: nothing new stands against it.</p>
        )}
      </Popup>
    )
  return (
    <Popup
      title={`Done otherwise: ${task.text}`}
      onClose={onClose}
      form={inside => <Form sheet={sheet}>{inside}</Form>}
      send={
        <Button type="submit" variant="contained">
          Write down as done
        </Button>
      }
    >
      {keys.length > 0 && (
        <Columns least={130}>
          {keys.map(k =>
            k === 'size' ? (
              <LineField key={k} name={`facts.${k}`} label={otherwiseKeys[k].label} most={6} />
            ) : (
              <NumberField
                key={k}
                name={`facts.${k}`}
                label={otherwiseKeys[k].label}
                whole={otherwiseKeys[k].whole}
                unit="count"
              />
            ),
          )}
        </Columns>
      )}
      <LineField name="why" label="What was done, and why" lines={2} most={200} autoFocus />
      <Quiet>
        {keys.length
          ? 'The figures change the plan, and the checks run on it at once. What is in words alone no check can see.'
          : 'It is kept and printed in your words. No check can see words: where a figure of the job differs, change it there.'}
      </Quiet>
      <OtherFaults />
    </Popup>
  )
}
