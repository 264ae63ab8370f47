import { Button } from '@mui/material'
import { CalendarDays } from 'lucide-react'
import { unitName } from '@/core/commission/scene'
import { dueOf } from '@/core/handover/due'
import { methodOf } from '@/core/hookup/method'
import type { HandOver } from '@/core/job/visits'
import { handOverSchema } from '@/core/job/visits'
import { type Fault, ok, parseWith } from '@/core/outcome'
import { Card, Columns, Quiet, Row } from '../common/pieces'
import { Form, OtherFaults } from '../form/Form'
import { DayField, LineField } from '../form/inputs'
import { useSheet } from '../form/useSheet'
import { useWorkspace } from '../workspace/store'

interface Typed {
  on: string
  where: { source: string; inlet: string }
  phone: string
  secondWay: string
  warranties: { unitId: string; serial: string; from: string; until: string }[]
}

/** What was typed, without what is empty. */
const filled = (said: Record<string, string>) =>
  Object.fromEntries(Object.entries(said).flatMap(([k, v]) => (v.trim() ? [[k, v.trim()]] : [])))

/** The day of the hand-over, what the card says of this house, and the firm's own data of each unit; from these the years count. */
export function HandedOver() {
  const id = useWorkspace(s => s.id)
  const job = useWorkspace(s => s.job)
  const act = useWorkspace(s => s.act)
  const units = job.source?.units ?? []
  const due = dueOf(job)
  const joined = methodOf(job.hookup.method).neutral !== 'stand-alone'
  const sheet = useSheet<Typed, HandOver>({
    values: {
      on: job.handOver?.on ?? '',
      where: { source: job.handOver?.where?.source ?? '', inlet: job.handOver?.where?.inlet ?? '' },
      phone: job.handOver?.phone ?? '',
      secondWay: job.handOver?.secondWay ?? '',
      warranties: units.map(u => {
        const known = job.handOver?.warranties.find(w => w.unitId === u.id)
        return {
          unitId: u.id,
          serial: known?.serial ?? '',
          from: known?.from ?? '',
          until: known?.until ?? '',
        }
      }),
    },
    read: typed => {
      const outcome = parseWith(handOverSchema, {
        ...(typed.on && { on: typed.on }),
        where: filled(typed.where),
        ...filled({ phone: typed.phone, secondWay: typed.secondWay }),
        warranties: typed.warranties
          .filter(w => w.from || w.until || w.serial)
          .map(({ serial, ...w }) => ({ ...w, ...(serial.trim() && { serial: serial.trim() }) })),
      })
      return outcome.ok ? ok(outcome.value) : outcome
    },
    save: (facts): Fault[] => act({ op: 'setHandOver', facts }),
  })
  return (
    <Card title="Handed over">
      <Form sheet={sheet} label="Handed over">
        <Columns least={170}>
          <DayField name="on" label="Handed over on" />
          <LineField name="phone" label="Telephone on the card" most={30} />
          <LineField name="where.source" label="The source stands, in their words" most={60} />
          {joined && <LineField name="where.inlet" label="The inlet is, in their words" most={60} />}
          {job.brief.medical === 'yes' && (
            <LineField name="secondWay" label="Second way of the medical device" most={120} />
          )}
        </Columns>
        {units.map((u, n) => (
          <Columns key={u.id} least={190}>
            <Quiet>{unitName({ job }, u.id)}: warranty</Quiet>
            <LineField name={`warranties.${n}.serial`} label="Serial number" most={60} />
            <DayField name={`warranties.${n}.from`} label="From" />
            <DayField name={`warranties.${n}.until`} label="Until" />
          </Columns>
        ))}
        <OtherFaults />
        <Row>
          <Button type="submit" variant="outlined">
            Keep it
          </Button>
          {due.length > 0 && (
            <Button
              component="a"
              href={`/api/jobs/${id}/calendar`}
              startIcon={<CalendarDays size={16} aria-hidden />}
            >
              Calendar file
            </Button>
          )}
        </Row>
      </Form>
      {due.map(d => (
        <Quiet key={`${d.what} ${d.on} ${d.text}`}>
          {d.on}: {d.text}
        </Quiet>
      ))}
    </Card>
  )
}
