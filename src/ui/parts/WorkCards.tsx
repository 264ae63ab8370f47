import { Alert, Button, List, ListItem } from '@mui/material'
import { FileDown } from 'lucide-react'
import dynamic from 'next/dynamic'
import { useMemo, useState } from 'react'
import * as z from 'zod'
import { fieldsOf, labelled } from '@/core/field'
import type { Job } from '@/core/job/schema'
import { figure, quantity } from '@/core/units/format'
import { minutesSchema, usualMinutes, workOfJob } from '@/core/work/parts/tasks'
import { DataTable } from '../common/DataTable'
import { Card, Columns, Quiet } from '../common/pieces'
import { useWorkspace } from '../workspace/store'
import { LearnedCard } from './LearnedCard'
import { type FirmParts, useFirmPartsChanges } from './useFirmParts'

const FactsDialog = dynamic(() => import('../form/FactsDialog').then(m => m.FactsDialog))

const formSchema = z.strictObject({
  minutes: labelled(minutesSchema, 'Minutes', 'text', { row: 'Work' }),
})

function TableFile({ of }: { of: 'hours' | 'tools' }) {
  const id = useWorkspace(s => s.id)
  return (
    <Button
      className="no-print"
      size="small"
      aria-label={`CSV of the ${of}`}
      startIcon={<FileDown size={16} aria-hidden />}
      href={`/api/jobs/${id}/order?format=csv&list=${of}`}
    >
      CSV
    </Button>
  )
}

/** Hours by task, by the firm’s minutes; tools and what is worn; what is too heavy for one. */
export function WorkCards({ job, firm }: { job: Job; firm: FirmParts | undefined }) {
  const [open, setOpen] = useState(false)
  const change = useFirmPartsChanges()
  const work = useMemo(() => workOfJob(job, firm?.minutes), [job, firm])
  if (!work.tasks.length) return null
  const minutes = usualMinutes.map(u => firm?.minutes.find(m => m.work === u.work) ?? u)
  return (
    <>
      <Card
        title="Hours"
        tools={
          <>
            {firm?.prices && (
              <Button className="no-print" size="small" onClick={() => setOpen(true)}>
                Minutes of the firm
              </Button>
            )}
            <TableFile of="hours" />
          </>
        }
      >
        <p>
          <b>{quantity(work.hours, 'h')}</b> for one pair of hands
          {work.helperHours > 0 && <>, {quantity(work.helperHours, 'h')} of them with a second</>}.
        </p>
        <DataTable
          label="Hours"
          rows={work.tasks}
          idOf={t => t.work}
          columns={[
            { head: 'Work', names: true, cell: t => t.name },
            { head: 'How many', figure: true, cell: t => figure(Math.round(t.count * 10) / 10) },
            { head: 'Minutes', figure: true, cell: t => figure(Math.round(t.minutes)) },
            { head: 'People', figure: true, cell: t => t.people },
          ]}
        />
        {change.error && <Alert severity="error">{change.error.message}</Alert>}
      </Card>
      {firm?.prices && <LearnedCard firm={firm} />}
      <Columns least={320}>
        <Card title="Tools" tools={<TableFile of="tools" />}>
          <List dense disablePadding>
            {work.tools.map(t => (
              <ListItem key={t.name} disableGutters sx={{ display: 'block' }}>
                {t.name}
                <Quiet>{t.for.join('; ')}</Quiet>
              </ListItem>
            ))}
          </List>
        </Card>
        <Card title="To be worn, and to be lifted">
          <List dense disablePadding>
            {work.protection.map(text => (
              <ListItem key={text} disableGutters>
                {text}
              </ListItem>
            ))}
            {work.lifts.map((l, n) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: two of one kind are lifted one after the other
              <ListItem key={n} disableGutters>
                {l.name}: {quantity(l.weightLb, 'lb')}, lifted by {l.people}
              </ListItem>
            ))}
          </List>
        </Card>
      </Columns>
      {open && firm && (
        <FactsDialog
          title="Minutes by kind of work"
          schema={formSchema}
          fields={fieldsOf(formSchema)}
          draft={{ minutes: minutes.map(m => ({ ...m })) }}
          save="Keep for the firm"
          onSave={async value => {
            try {
              await change.mutateAsync({
                act: 'minutes',
                ...formSchema.parse(value),
                version: firm.version,
              })
              return []
            } catch (failed) {
              return [{ path: '$', message: failed instanceof Error ? failed.message : 'was not kept' }]
            }
          }}
          onClose={() => setOpen(false)}
        />
      )}
    </>
  )
}
