import { Alert, Box, Button, Chip, Table, TableBody, TableCell, TableHead, TableRow } from '@mui/material'
import { Printer } from 'lucide-react'
import Link from 'next/link'
import { useMemo, useState } from 'react'
import { notBuilt } from '@/core/commission'
import { livedText } from '@/core/handover/lived'
import { standingOf, visitTold } from '@/core/handover/standing'
import { type Visit, type VisitKind, visitKindKeys, visitKinds } from '@/core/job/visits'
import { type Fault, fail, fault, ok } from '@/core/outcome'
import { typedNumber } from '@/core/typed-number'
import { plural, quantity } from '@/core/units/format'
import { Card, Column, Columns, Quiet, Row } from '../common/pieces'
import { today } from '../common/today'
import { Form, OtherFaults } from '../form/Form'
import { ChoiceField, DayField, LineField } from '../form/inputs'
import { useField } from '../form/useField'
import { useSheet } from '../form/useSheet'
import { useWorkspace } from '../workspace/store'

interface Typed {
  kind: VisitKind
  on: string
  text: string
  hours: string
  carried: 'all of it' | 'some of it' | 'none of it'
}

/** Who came back to the house, and why: each opened against what stood then, with what it changed. */
export function Visits() {
  const visits = useWorkspace(s => s.job.visits) ?? []
  const unbuilt = useWorkspace(s => notBuilt(s.job).length)
  return (
    <Card title="Visits and outages afterwards">
      {unbuilt > 0 && (
        <Quiet>
          {plural(unbuilt, 'planned change is', 'planned changes are')} not built yet: a visit is told against
          the house as planned.
        </Quiet>
      )}
      <NewVisit />
      {[...visits]
        .sort((a, b) => b.on.localeCompare(a.on))
        .map(v => (
          <VisitShown key={v.id} visit={v} />
        ))}
    </Card>
  )
}

function NewVisit() {
  const job = useWorkspace(s => s.job)
  const evaluation = useWorkspace(s => s.evaluation)
  const revision = useWorkspace(s => s.revision)
  const person = useWorkspace(s => s.person)
  const act = useWorkspace(s => s.act)
  const sheet = useSheet<Typed, Visit>({
    values: { kind: 'trips', on: today(), text: '', hours: '', carried: 'all of it' },
    read: typed => {
      const faults: Fault[] = []
      if (!/^\d{4}-\d{2}-\d{2}$/.test(typed.on)) faults.push(fault('on', 'must be a day'))
      const said = typed.kind === 'outage' ? typedNumber(typed.hours, 'h') : null
      const hours = said && 'value' in said ? said.value : null
      if (said && 'problem' in said) faults.push(fault('hours', said.problem))
      else if (hours !== null && (hours < 0.1 || hours > 720))
        faults.push(fault('hours', 'must be from 0.1 to 720 h'))
      if (faults.length) return fail(...faults)
      return ok({
        id: crypto.randomUUID(),
        kind: typed.kind,
        on: typed.on,
        by: person,
        text: typed.text.trim(),
        before: standingOf(job, revision, evaluation),
        ...(hours !== null && {
          lived: { hours, carried: typed.carried, predictedH: evaluation.headline.hoursHad },
          closedOn: typed.on,
        }),
      })
    },
    save: visit => act({ op: 'openVisit', visit }),
    done: () => sheet.form.reset({ ...sheet.form.getValues(), text: '', hours: '' }),
  })
  return (
    <Form sheet={sheet} label="A visit, or an outage">
      <Columns least={170}>
        <ChoiceField
          name="kind"
          label="Why"
          options={visitKindKeys.map(k => ({ value: k, label: visitKinds[k].name }))}
        />
        <DayField name="on" label="Day" />
        <Lived />
      </Columns>
      <About />
      <OtherFaults />
      <Button type="submit" variant="outlined" sx={{ alignSelf: 'start' }}>
        Write it down
      </Button>
    </Form>
  )
}

function About() {
  const { value } = useField('kind')
  return (
    <LineField
      name="text"
      label={`In a few words: ${visitKinds[(value as VisitKind) ?? 'trips'].about}`}
      most={500}
      lines={2}
    />
  )
}

function Lived() {
  const { value } = useField('kind')
  if (value !== 'outage') return null
  return (
    <>
      <LineField name="hours" label="How many hours" most={12} />
      <ChoiceField
        name="carried"
        label="It carried"
        options={['all of it', 'some of it', 'none of it'] as const}
      />
    </>
  )
}

function VisitShown({ visit }: { visit: Visit }) {
  const id = useWorkspace(s => s.id)
  const job = useWorkspace(s => s.job)
  const evaluation = useWorkspace(s => s.evaluation)
  const act = useWorkspace(s => s.act)
  const [open, setOpen] = useState(visit.closedOn === undefined)
  const told = useMemo(
    () => (open ? visitTold(job, visit, evaluation) : null),
    [open, job, visit, evaluation],
  )
  const sheet = useSheet<{ done: string }, string>({
    values: { done: '' },
    read: ({ done }) => ok(done.trim()),
    save: done => act({ op: 'closeVisit', id: visit.id, done, on: today() }),
  })
  const printed = told && told.directory.came.length + told.directory.went.length + told.card.came.length > 0
  return (
    <Column component="section" aria-label={`${visitKinds[visit.kind].name}, ${visit.on}`} sx={{ pt: 1 }}>
      <Row>
        <b>
          {visit.on}: {visitKinds[visit.kind].name}
        </b>
        <Chip size="small" label={visit.closedOn ? `closed ${visit.closedOn}` : 'open'} />
        <Quiet>{visit.by}</Quiet>
        <Button size="small" onClick={() => setOpen(!open)} aria-expanded={open}>
          {open ? 'Less' : 'What it changed'}
        </Button>
      </Row>
      {visit.text && <p style={{ overflowWrap: 'anywhere' }}>{visit.text}</p>}
      {visit.lived && (
        <Alert severity={visit.lived.carried === 'all of it' ? 'success' : 'warning'}>
          {livedText(visit.lived)}
        </Alert>
      )}
      {visit.done && (
        <p style={{ overflowWrap: 'anywhere' }}>
          <b>Done:</b> {visit.done}
        </p>
      )}
      {told && (
        <>
          {told.figures.length > 0 ? (
            <Table size="small" aria-label="Figures before and after">
              <TableHead>
                <TableRow>
                  <TableCell>Figure</TableCell>
                  <TableCell align="right">Before</TableCell>
                  <TableCell align="right">Now</TableCell>
                </TableRow>
              </TableHead>
              <TableBody>
                {told.figures.map(f => (
                  <TableRow key={f.id}>
                    <TableCell>{f.label}</TableCell>
                    <TableCell align="right">
                      {f.before === null ? '–' : quantity(f.before, f.unit)}
                    </TableCell>
                    <TableCell align="right">{f.after === null ? '–' : quantity(f.after, f.unit)}</TableCell>
                  </TableRow>
                ))}
              </TableBody>
            </Table>
          ) : (
            <Quiet>No figure has changed since revision {visit.before.revision}.</Quiet>
          )}
          <Changed title="Directory and labels" {...told.directory} />
          <Changed title="The card" {...told.card} />
          {printed && (
            <Button
              component={Link}
              href={`/jobs/${id}/visit/${visit.id}`}
              startIcon={<Printer size={16} aria-hidden />}
              sx={{ alignSelf: 'start' }}
            >
              Print what changed
            </Button>
          )}
          {!visit.closedOn && (
            <Form sheet={sheet} label="Close the visit">
              <LineField name="done" label="What was done" most={500} />
              <OtherFaults />
              <Button type="submit" size="small" sx={{ alignSelf: 'start' }}>
                Close the visit
              </Button>
            </Form>
          )}
        </>
      )}
    </Column>
  )
}

export function Changed({ title, came, went }: { title: string; came: string[]; went: string[] }) {
  if (!came.length && !went.length) return null
  return (
    <Box>
      <h3>{title}</h3>
      <Box component="ul" sx={{ m: 0, pl: 2.5, overflowWrap: 'anywhere' }}>
        {went.map(l => (
          <li key={`- ${l}`}>
            <del>{l}</del>
          </li>
        ))}
        {came.map(l => (
          <li key={`+ ${l}`}>
            <ins style={{ textDecoration: 'none', fontWeight: 700 }}>{l}</ins>
          </li>
        ))}
      </Box>
    </Box>
  )
}
