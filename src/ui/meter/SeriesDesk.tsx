import {
  Box,
  Button,
  LinearProgress,
  List,
  ListItem,
  ListItemText,
  ToggleButton,
  ToggleButtonGroup,
} from '@mui/material'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import type { LoadRow } from '@/core/assess/loads-overview'
import type { MeterFormat } from '@/core/formats/meter-format'
import { type Guess, guessMeterFormat } from '@/core/formats/meter-guess'
import type { Log } from '@/core/loads/log'
import { type Fault, fail, fault, ok } from '@/core/outcome'
import { faultLine, upload } from '../api'
import { FileButton } from '../common/FileButton'
import { Problem } from '../common/Problem'
import { Column, Quiet, Row } from '../common/pieces'
import { Form } from '../form/Form'
import { NumberField } from '../form/inputs'
import { useSheet } from '../form/useSheet'
import { told } from '../query'
import { useWorkspace } from '../workspace/store'
import { ColumnsForm } from './ColumnsForm'
import { SeriesResult } from './SeriesResult'
import { useMeterSeries } from './useMeterSeries'

interface Kept {
  id: string
  name: string
  on: string
}
interface Opened {
  name: string
  file: Blob
  /** kept with the job already */
  kept: boolean
  guess: Guess
}

const headBytes = 60_000

/** A meter's series: from a file or from the simulated meter; its columns confirmed, its runs told apart, then taken. */
export function SeriesDesk({
  row,
  simulated,
  onTake,
}: {
  row: LoadRow
  simulated: boolean
  onTake: (log: Log) => Fault[]
}) {
  const id = useWorkspace(s => s.id)
  const say = useWorkspace(s => s.say)
  const series = useMeterSeries()
  const client = useQueryClient()
  const [opened, setOpened] = useState<Opened | null>(null)
  const [problem, setProblem] = useState<string | null>(null)

  const open = async (name: string, file: Blob, kept: boolean) => {
    setProblem(null)
    series.stop()
    const guess = guessMeterFormat(await file.slice(0, headBytes).text(), row.volts)
    if (guess.ok) setOpened({ name, file, kept, guess: guess.value })
    else {
      setOpened(null)
      setProblem(`${name} ${guess.faults.map(f => f.message).join(' ')}`)
    }
  }
  const taken = async (log: Log): Promise<Fault[]> => {
    const refused = onTake(log)
    if (!refused.length && opened && !opened.kept) {
      const answer = await upload(
        `/api/jobs/${id}/logs?name=${encodeURIComponent(opened.name.slice(0, 120))}`,
        opened.file,
        () => {},
      )
      if (answer.ok) {
        setOpened({ ...opened, kept: true })
        void client.invalidateQueries({ queryKey: [`/api/jobs/${id}/logs`] })
      } else say(`The log is taken, but its file could not be kept: ${answer.message}`)
    }
    return refused
  }
  const refusedFile = series.faults.map(faultLine).join(' ')
  return (
    <Column component="section" aria-label={simulated ? 'Simulated meter' : 'A series from a file'}>
      {simulated ? (
        <SimulatedMeter
          row={row}
          series={series}
          onRecorded={(name, file, guess) => setOpened({ name, file, kept: false, guess })}
        />
      ) : (
        <FileChoice id={id} onOpen={open} onProblem={setProblem} />
      )}
      <Problem>{problem}</Problem>
      {refusedFile && (
        <Problem>
          {opened?.name} {refusedFile}
        </Problem>
      )}
      {opened && !simulated && !series.about && !series.busy && (
        <ColumnsForm
          key={opened.name}
          name={opened.name}
          guess={opened.guess}
          onRead={(format: MeterFormat) => series.read(opened.file, format)}
        />
      )}
      {series.busy && (
        <div role="status">
          <LinearProgress
            variant={series.busy.share ? 'determinate' : 'indeterminate'}
            value={series.busy.share * 100}
            aria-label="Reading"
          />
          <Row>
            <Quiet component="span">{series.busy.what}</Quiet>
            <Button size="small" onClick={series.stop}>
              Stop
            </Button>
          </Row>
        </div>
      )}
      {series.about && series.segmentation && series.seen && (
        <SeriesResult
          row={row}
          series={series}
          name={opened?.name ?? 'series'}
          kind={simulated ? 'simulated meter' : 'series'}
          onTake={taken}
        />
      )}
    </Column>
  )
}

function FileChoice({
  id,
  onOpen,
  onProblem,
}: {
  id: string
  onOpen: (name: string, file: Blob, kept: boolean) => Promise<void>
  onProblem: (problem: string) => void
}) {
  const at = `/api/jobs/${id}/logs`
  const { data } = useQuery({ queryKey: [at], queryFn: () => told<{ files: Kept[] }>(at) })
  const kept = data?.files ?? []
  const openKept = async (file: Kept) => {
    const answer = await fetch(`/api/files/${file.id}`).catch(() => null)
    if (answer?.ok) await onOpen(file.name, await answer.blob(), true)
    else onProblem(`${file.name} could not be fetched: is the server there?`)
  }
  return (
    <>
      <Row>
        <FileButton
          what="File of readings"
          accept=".csv,.txt,.tsv,text/csv,text/plain"
          variant="outlined"
          onFiles={([file]) => onOpen(file.name, file, false)}
        >
          Choose a file
        </FileButton>
        <Quiet component="span">
          a table with a time and W, A or a counter of Wh; it is read on this device
        </Quiet>
      </Row>
      {kept.length > 0 && (
        <List dense disablePadding aria-label="Kept with the job">
          {kept.map(f => (
            <ListItem
              key={f.id}
              disableGutters
              secondaryAction={
                <Button size="small" onClick={() => void openKept(f)}>
                  Open
                </Button>
              }
            >
              <ListItemText primary={f.name} secondary={f.on} />
            </ListItem>
          ))}
        </List>
      )}
    </>
  )
}

const speeds = [
  ['1', 'real time'],
  ['60', 'a minute each second'],
  ['3600', 'an hour each second'],
  ['0', 'as fast as it goes'],
] as const

/** Plays the load into the log as its meter would: row by row, in real time or faster; stopped at any time. */
function SimulatedMeter({
  row,
  series,
  onRecorded,
}: {
  row: LoadRow
  series: ReturnType<typeof useMeterSeries>
  onRecorded: (name: string, file: Blob, guess: Guess) => void
}) {
  const id = useWorkspace(s => s.id)
  const pending = useWorkspace(s => s.pending.length)
  const [speed, setSpeed] = useState<string>('0')
  const [problem, setProblem] = useState<string | null>(null)
  const [playing, setPlaying] = useState<AbortController | null>(null)
  useEffect(() => () => playing?.abort(), [playing])
  const sheet = useSheet<{ hours: number | string }, number>({
    values: { hours: 48 },
    read: ({ hours: long }) =>
      typeof long === 'number' && long >= 0.01 && long <= 336
        ? ok(long)
        : fail(fault('hours', 'must be a number from 0.01 to 336, such as 48')),
    save: long => {
      void play(long)
      return null
    },
  })

  const play = async (long: number) => {
    setProblem(null)
    const control = new AbortController()
    setPlaying(control)
    const stepS = long <= 1 ? 1 : 10
    const query = new URLSearchParams({
      circuit: row.circuitId,
      load: row.load.id,
      hours: String(long),
      stepS: String(stepS),
      speed,
    })
    try {
      const answer = await fetch(`/api/jobs/${id}/simulated-meter?${query}`, { signal: control.signal })
      if (!answer.ok || !answer.body) throw new Error(`The simulated meter answered ${answer.status}.`)
      await listen(answer.body, control.signal)
    } catch (error) {
      if (!control.signal.aborted)
        setProblem(error instanceof Error ? error.message : 'The simulated meter fell silent.')
    } finally {
      setPlaying(null)
    }
  }
  const listen = async (body: ReadableStream<Uint8Array>, signal: AbortSignal) => {
    const parts: string[] = []
    const reader = body.getReader()
    const decoder = new TextDecoder()
    let guess: Guess | null = null
    for (;;) {
      const { done, value } = await reader.read().catch(() => ({ done: true as const, value: undefined }))
      if (done) break
      const text = decoder.decode(value, { stream: true })
      parts.push(text)
      if (guess) {
        series.more(text)
        continue
      }
      const known = guessMeterFormat(parts.join(''), row.volts)
      if (!known.ok) continue
      guess = known.value
      series.begin(guess.format)
      series.more(parts.join(''))
    }
    if (!guess) {
      if (!signal.aborted) setProblem('The simulated meter sent nothing.')
      return
    }
    // stopped by hand: what came so far is a log too
    onRecorded('simulated meter', new Blob(parts, { type: 'text/csv' }), guess)
    series.end()
  }
  return (
    <Form sheet={sheet}>
      <Quiet>
        Stands in for a meter on this load’s plug: it plays what the load might truly draw, not what the job
        believes, and sends rows as such meters save them.
      </Quiet>
      <Row sx={{ alignItems: 'flex-start' }}>
        <Box sx={{ width: 140 }}>
          <NumberField name="hours" label="Log for" unit="h" />
        </Box>
        <ToggleButtonGroup
          exclusive
          size="small"
          aria-label="How fast"
          value={speed}
          onChange={(_, next: string | null) => next && setSpeed(next)}
          sx={{ flexWrap: 'wrap' }}
        >
          {speeds.map(([value, label]) => (
            <ToggleButton key={value} value={value}>
              {label}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
      </Row>
      <Problem>{problem}</Problem>
      <Row>
        {playing ? (
          <Button variant="outlined" onClick={() => playing.abort()}>
            Stop the meter, keep what it logged
          </Button>
        ) : (
          <Button
            type="submit"
            variant="outlined"
            disabled={pending > 0}
            title={pending > 0 ? 'The last change is being saved first' : undefined}
          >
            Start the meter
          </Button>
        )}
      </Row>
    </Form>
  )
}
