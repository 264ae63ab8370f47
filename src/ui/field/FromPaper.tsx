import { Box, Button } from '@mui/material'
import { useState } from 'react'
import { useWatch } from 'react-hook-form'
import type { Operation } from '@/core/job/operations'
import type { Entry } from '@/core/job/work-log'
import { type Hold, holdKinds } from '@/core/order/holds'
import { typedHold } from '@/core/order/paper'
import { buildsOf, estimatedOf, isHeld } from '@/core/order/stand'
import type { Task } from '@/core/order/task'
import { type Fault, fail, fault, ok } from '@/core/outcome'
import { typedNumber } from '@/core/typed-number'
import { plural } from '@/core/units/format'
import { Popup } from '../common/Popup'
import { Columns, Quiet } from '../common/pieces'
import { today } from '../common/today'
import { Form, OtherFaults } from '../form/Form'
import { CheckField, LineField } from '../form/inputs'
import { useSheet } from '../form/useSheet'
import { useWorkspace } from '../workspace/store'
import type { Work } from './useWork'

interface RowTyped {
  on: boolean
  minutes: string
  holds: string[]
}
interface Typed {
  by: string
  rows: RowTyped[]
}

/** What was ticked and written on the booklet, typed in one go. */
export function FromPaper({ work: { order, stand }, onClose }: { work: Work; onClose: () => void }) {
  const person = useWorkspace(s => s.person)
  const id = useWorkspace(s => s.id)
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const [tasks] = useState(() => order.tasks.filter(t => stand.tasks.get(t.id)?.state !== 'done'))
  const openHolds = (t: Task) => (stand.tasks.get(t.id)?.holds ?? []).filter(isHeld).map(h => h.hold)
  const sheet = useSheet<Typed, Entry[]>({
    values: {
      by: person,
      rows: tasks.map(t => ({ on: false, minutes: '', holds: openHolds(t).map(() => '') })),
    },
    keep: `spillway.paper.${id}`,
    read: typed => {
      const faults: Fault[] = []
      const by = typed.by.trim()
      if (!by) faults.push(fault('by', 'must say who did it'))
      const entries = tasks.flatMap((task, n): Entry[] => {
        const row = typed.rows[n]
        if (!row?.on) return []
        const common = () => ({ id: crypto.randomUUID(), task: task.id, by, at: new Date().toISOString() })
        const minutes = row.minutes.trim() ? typedNumber(row.minutes, 'min') : null
        if (minutes && 'problem' in minutes) faults.push(fault(`rows[${n}].minutes`, minutes.problem))
        const evidence = openHolds(task).flatMap((hold, h): Entry[] => {
          const line = row.holds[h] ?? ''
          if (!line.trim()) return []
          const read = typedHold(hold, line)
          if ('problem' in read) {
            faults.push(fault(`rows[${n}].holds[${h}]`, read.problem))
            return []
          }
          const { readings, ...facts } = read.facts
          return [
            {
              ...common(),
              kind: 'evidence',
              hold: hold.id,
              ...facts,
              ...(readings && { readings: [...readings] }),
            },
          ]
        })
        return [
          ...evidence,
          {
            ...common(),
            kind: 'done',
            on: today(),
            builds: buildsOf(task, order.tasks),
            estimated: estimatedOf(task),
            ...(minutes && 'value' in minutes && { minutes: minutes.value }),
          },
        ]
      })
      if (!entries.length && !faults.length) faults.push(fault('$', 'Tick what was done'))
      return faults.length ? fail(...faults) : ok(entries)
    },
    save: entries => {
      const operations: Operation[] = []
      for (let n = 0; n < entries.length; n += 300)
        operations.push({
          op: 'recordWork',
          about: 'typed in from the booklet',
          entries: entries.slice(n, n + 300),
        })
      return act(...operations)
    },
    done: entries => {
      say(`${plural(entries.filter(e => e.kind === 'done').length, 'step')} typed in.`)
      onClose()
    },
  })
  const tickTo = (last: number) => {
    for (let n = 0; n <= last; n++) sheet.form.setValue(`rows.${n}.on`, true, { shouldDirty: true })
  }
  return (
    <Popup
      title="From paper"
      maxWidth="md"
      onClose={onClose}
      form={inside => <Form sheet={sheet}>{inside}</Form>}
      send={
        <Button type="submit" variant="contained">
          Write down
        </Button>
      }
    >
      <Quiet>
        Tick what was done, and type what stands in its lines: readings in their order with blanks between,
        torque with its tool behind. What is left empty stays open, and is told.
      </Quiet>
      <LineField name="by" label="Who did it" most={60} />
      {tasks.map((t, n) => (
        <Row
          key={t.id}
          task={t}
          at={n}
          number={order.tasks.indexOf(t) + 1}
          holds={openHolds(t)}
          onTickTo={() => tickTo(n)}
        />
      ))}
      <OtherFaults />
    </Popup>
  )
}

function Row({
  task,
  at,
  number,
  holds,
  onTickTo,
}: {
  task: Task
  at: number
  number: number
  holds: readonly Hold[]
  onTickTo: () => void
}) {
  const on = useWatch({ name: `rows.${at}.on` })
  return (
    <Box sx={{ borderTop: 1, borderColor: 'divider', pt: 0.5 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
        <Box sx={{ flex: 1 }}>
          <CheckField name={`rows.${at}.on`} label={`${number}. ${task.text}`} />
        </Box>
        <Button size="small" onClick={onTickTo}>
          All up to here
        </Button>
      </Box>
      {on && (
        <Columns least={200}>
          <LineField name={`rows.${at}.minutes`} label={`Minutes (about ${task.minutes})`} most={8} />
          {holds.map((h, n) => (
            <LineField
              key={h.id}
              name={`rows.${at}.holds.${n}`}
              label={`${holdKinds[h.kind].name}${h.readings.length ? `: ${h.readings.map(r => r.name).join(' · ')}` : ''}`}
              help={h.readings.length ? undefined : h.text}
              most={200}
            />
          ))}
        </Columns>
      )}
    </Box>
  )
}
