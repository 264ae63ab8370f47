import { Alert, Box, Button, Paper, Typography } from '@mui/material'
import { Camera, Check, Gauge, TriangleAlert } from 'lucide-react'
import { useState } from 'react'
import { holdKinds, type ReadingAsked } from '@/core/order/holds'
import { simulatedReadings } from '@/core/order/meter'
import type { HoldStand } from '@/core/order/stand'
import type { Task } from '@/core/order/task'
import { typedReading } from '@/core/order/typed'
import { holdText } from '@/core/order/words'
import { type Fault, fail, fault, ok } from '@/core/outcome'
import { FileButton, pictures } from '../common/FileButton'
import { Columns, Quiet, Row } from '../common/pieces'
import { Form, OtherFaults } from '../form/Form'
import { LineField } from '../form/inputs'
import { useSheet } from '../form/useSheet'
import { useWorkspace } from '../workspace/store'
import { takePhoto } from './photographs'
import { useRecord, type Work } from './useWork'

interface Props {
  task: Task
  stand: HoldStand
  work: Work
  onPhoto: () => Promise<void>
}

interface Typed {
  r: string[]
  /** what the simulated meter filled in */
  simulated: string[]
  text: string
  tool: string
  with: string
}
type Readings = { key: string; value: number | 'OL' }[]

const lastTool = (jobId: string) => `spillway.tool.${jobId}`

/** What stops the work until its evidence is there: confirmed, read, photographed, initialled, or seen by a second person. */
export function HoldPoint({ task, stand, work, onPhoto }: Props) {
  const { hold, judged, evidence, skipped } = stand
  const { name, asks, skippable } = holdKinds[hold.kind]
  const id = useWorkspace(s => s.id)
  const say = useWorkspace(s => s.say)
  const record = useRecord()
  const [again, setAgain] = useState(false)
  const [without, setWithout] = useState(false)
  const passed = judged.state === 'passed'
  const asked = (!passed && !skipped) || again
  const write = (
    facts: Omit<Extract<Parameters<typeof record>[1], { kind: 'evidence' }>, 'kind' | 'hold'>,
  ): Fault[] => {
    const faults = record(task, { kind: 'evidence', hold: hold.id, ...facts })
    if (!faults.length) setAgain(false)
    return faults
  }
  const photograph = async (file: File) => {
    const taken = await takePhoto(id, task, file)
    if ('refused' in taken) return say(taken.refused)
    write({ photoId: taken.id })
    await onPhoto()
  }
  return (
    <Paper
      component="section"
      variant="outlined"
      aria-label={`${name}: ${hold.text}`}
      sx={{
        p: 1.5,
        '& > * + *': { mt: 1 },
        borderWidth: 2,
        borderColor: passed ? 'water.live' : 'severity.stop',
        borderLeftWidth: 8,
        '& .MuiButton-root': { minHeight: 52 },
      }}
    >
      <Row sx={{ alignItems: 'flex-start', flexWrap: 'nowrap' }}>
        {passed ? <Check aria-hidden size={22} /> : <TriangleAlert aria-hidden size={22} />}
        <Box sx={{ flex: 1, minWidth: 0 }}>
          <Typography component="h3" variant="h3">
            {name}
            {passed ? ': done' : skipped ? ': gone on without' : ''}
          </Typography>
          <p>{hold.text}</p>
        </Box>
      </Row>
      {evidence && (judged.state === 'refused' || judged.state === 'doubtful') && (
        <Alert severity={judged.state === 'refused' ? 'error' : 'warning'} role="alert">
          <b>{judged.text}</b> {judged.next}
        </Alert>
      )}
      {evidence && passed && !again && (
        <Row>
          {evidence.simulated ? (
            <Alert severity="warning" sx={{ flex: 1 }}>
              {holdText(stand)}
            </Alert>
          ) : (
            <Quiet sx={{ flex: 1 }}>{holdText(stand)}</Quiet>
          )}
          <Button size="small" onClick={() => setAgain(true)}>
            Again
          </Button>
        </Row>
      )}
      {skipped && !again && (
        <Row>
          <Quiet sx={{ flex: 1 }}>
            {skipped.by}: {skipped.why}
          </Quiet>
          <Button size="small" onClick={() => setAgain(true)}>
            Do it now
          </Button>
        </Row>
      )}
      {asked && asks === 'confirm' && (
        <Button fullWidth variant="contained" onClick={() => write({ text: 'seen' })}>
          I have seen it
        </Button>
      )}
      {asked && asks === 'photo' && (
        <Columns least={140}>
          <FileButton
            what={`Photograph: ${hold.text}`}
            accept={pictures}
            camera
            variant="contained"
            startIcon={<Camera size={20} aria-hidden />}
            onFiles={([file]) => photograph(file)}
          >
            Photograph
          </FileButton>
          <InWords
            label="Without a photograph: what is seen, the tag’s number"
            write={text => write({ text })}
            hold={hold.id}
          />
        </Columns>
      )}
      {asked && (asks === 'initials' || asks === 'second' || asks === 'readings') && (
        <Evidence key={`${hold.id} ${again}`} stand={stand} work={work} write={write} />
      )}
      {asked && skippable && !without && (
        <Button size="small" color="inherit" onClick={() => setWithout(true)} sx={{ alignSelf: 'start' }}>
          Go on without it
        </Button>
      )}
      {asked && without && (
        <InWords
          label="Why it is gone on without; it prints, with your name"
          word="Go on without it"
          hold={`${hold.id} without`}
          write={why => {
            const faults = record(task, { kind: 'skipped', hold: hold.id, why })
            if (!faults.length) setAgain(false)
            return faults
          }}
        />
      )}
    </Paper>
  )
}

function InWords({
  label,
  word = 'Write down',
  hold,
  write,
}: {
  label: string
  word?: string
  hold: string
  write: (text: string) => Fault[]
}) {
  const sheet = useSheet<{ text: string }, string>({
    values: { text: '' },
    keep: `spillway.hold.${hold}`,
    read: ({ text }) => (text.trim() ? ok(text.trim()) : fail(fault('text', 'must say something'))),
    save: write,
  })
  return (
    <Form sheet={sheet}>
      <LineField name="text" label={label} lines={1} />
      <OtherFaults />
      <Button type="submit" variant="outlined">
        {word}
      </Button>
    </Form>
  )
}

/** Readings, initials, a second person: typed, or taken from the simulated meter. */
function Evidence({
  stand: { hold, evidence, judged },
  work,
  write,
}: {
  stand: HoldStand
  work: Work
  write: (facts: {
    readings?: Readings
    simulated?: true
    text?: string
    tool?: string
    with?: string
  }) => Fault[]
}) {
  const job = useWorkspace(s => s.job)
  const id = useWorkspace(s => s.id)
  const person = useWorkspace(s => s.person)
  const { asks } = holdKinds[hold.kind]
  const readings = asks === 'readings'
  const torque = hold.kind === 'torque'
  // what the label says, and what was read at the lugs, may be written beside a doubtful figure
  const doubted = judged.state === 'doubtful' && (torque || hold.kind === 'volts')
  const written = hold.readings.map(r => textOf(evidence?.readings?.find(e => e.key === r.key)?.value))
  const sheet = useSheet<Typed, Parameters<typeof write>[0]>({
    values: {
      r: written,
      simulated: evidence?.simulated ? written : [],
      text: asks === 'initials' ? '' : (evidence?.text ?? ''),
      tool:
        evidence?.tool ??
        (torque && typeof localStorage !== 'undefined' ? (localStorage.getItem(lastTool(id)) ?? '') : ''),
      with: '',
    },
    keep: `spillway.hold.${hold.id}`,
    read: typed => {
      const values = hold.readings.map((asked, n) => ({ asked, got: typedReading(typed.r[n] ?? '', asked) }))
      const faults: Fault[] = values.flatMap(({ got }, n) =>
        'problem' in got ? [fault(`r[${n}]`, got.problem)] : [],
      )
      if (asks === 'initials' && !typed.text.trim())
        faults.push(fault('text', 'must be the initials of who pulled'))
      if (torque && !typed.tool.trim()) faults.push(fault('tool', 'must name the torque tool'))
      if (asks === 'second' && (!typed.with.trim() || typed.with.trim() === person))
        faults.push(fault('with', 'must name somebody else: not who drills'))
      if (faults.length) return fail(...faults)
      return ok({
        ...(readings && {
          readings: values.flatMap(({ asked, got }) =>
            'value' in got ? [{ key: asked.key, value: got.value }] : [],
          ),
        }),
        // one of its figures left standing, and it is not read by an instrument
        ...(typed.simulated.some((value, n) => value === typed.r[n]) && { simulated: true as const }),
        ...(typed.text.trim() && { text: typed.text.trim() }),
        ...(typed.tool.trim() && { tool: typed.tool.trim() }),
        ...(typed.with.trim() && { with: typed.with.trim() }),
      })
    },
    save: facts => {
      if (facts.tool) localStorage.setItem(lastTool(id), facts.tool)
      return write(facts)
    },
  })
  const simulate = () => {
    const shown = simulatedReadings(job, work.order, work.stand, hold).map(s => textOf(s.value))
    sheet.form.setValue('simulated', shown)
    for (const [n, value] of shown.entries()) sheet.form.setValue(`r.${n}`, value, { shouldDirty: true })
  }
  return (
    <Form sheet={sheet}>
      {readings && (
        <Columns least={132}>
          {hold.readings.map((r, n) => (
            <LineField
              key={r.key}
              name={`r.${n}`}
              label={`${r.name}, ${r.unit}`}
              most={20}
              help={hintOf(r)}
            />
          ))}
        </Columns>
      )}
      {asks === 'initials' && <LineField name="text" label="Initials" most={8} />}
      {asks === 'second' && <LineField name="with" label="Who looked as well" most={60} />}
      {torque && <LineField name="tool" label="Torque tool, by its number" most={60} />}
      {doubted && (
        <LineField name="text" label={torque ? 'What the label says' : 'What it is at the incoming lugs'} />
      )}
      <OtherFaults />
      <Columns least={140}>
        <Button type="submit" variant="contained">
          Write down
        </Button>
        {readings && (
          <Button variant="outlined" startIcon={<Gauge size={20} aria-hidden />} onClick={simulate}>
            From the simulated meter
          </Button>
        )}
      </Columns>
    </Form>
  )
}

const textOf = (value: number | 'OL' | undefined) => (value === undefined ? '' : String(value))
const hintOf = ({ role }: ReadingAsked) => (role === 'apart' ? 'OL where open' : undefined)
