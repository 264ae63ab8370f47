'use client'
import Button from '@mui/material/Button'
import LinearProgress from '@mui/material/LinearProgress'
import { useEffect, useState } from 'react'
import { type Guess, guessMeterFormat, type MeterFormat } from '@/core/formats/meter-csv'
import type { LoadRow } from '@/core/job/loads-overview'
import type { Log } from '@/core/loads/log'
import type { Fault } from '@/core/outcome'
import { call, faultLine, upload } from '../api'
import { FileButton } from '../common/FileButton'
import { useWorkspace } from '../workspace/store'
import { ColumnsForm } from './ColumnsForm'
import { FormField, numberTyped } from './fields'
import styles from './Loads.module.css'
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
      if (answer.ok) setOpened({ ...opened, kept: true })
      else say(`The log is taken, but its file could not be kept: ${answer.message}`)
    }
    return refused
  }
  const refusedFile = series.faults.map(faultLine).join(' ')
  return (
    <section className={styles.form} aria-label={simulated ? 'Simulated meter' : 'A series from a file'}>
      {simulated ? (
        <SimulatedMeter
          row={row}
          series={series}
          onRecorded={(name, file, guess) => setOpened({ name, file, kept: false, guess })}
        />
      ) : (
        <FileChoice id={id} onOpen={open} onProblem={setProblem} />
      )}
      {problem && (
        <p role="alert" className={styles.alert}>
          {problem}
        </p>
      )}
      {refusedFile && (
        <p role="alert" className={styles.alert}>
          {opened?.name} {refusedFile}
        </p>
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
          <div className={styles.tools}>
            <span className={styles.quiet}>{series.busy.what}</span>
            <Button size="small" onClick={series.stop}>
              Stop
            </Button>
          </div>
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
    </section>
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
  const [kept, setKept] = useState<Kept[]>([])
  useEffect(() => {
    void call<{ files: Kept[] }>(`/api/jobs/${id}/logs`, 'GET').then(answer => {
      if (answer.ok) setKept(answer.data.files)
    })
  }, [id])
  const openKept = async (file: Kept) => {
    const answer = await fetch(`/api/files/${file.id}`).catch(() => null)
    if (answer?.ok) await onOpen(file.name, await answer.blob(), true)
    else onProblem(`${file.name} could not be fetched: is the server there?`)
  }
  return (
    <>
      <div className={styles.tools}>
        <FileButton
          what="File of readings"
          accept=".csv,.txt,.tsv,text/csv,text/plain"
          variant="outlined"
          onFiles={([file]) => onOpen(file.name, file, false)}
        >
          Choose a file
        </FileButton>
        <span className={styles.quiet}>
          a table with a time and W, A or a counter of Wh; it is read on this device
        </span>
      </div>
      {kept.length > 0 && (
        <ul className={styles.list} aria-label="Kept with the job">
          {kept.map(f => (
            <li key={f.id}>
              <span>
                {f.name} <span className={styles.quiet}>{f.on}</span>
              </span>
              <Button size="small" onClick={() => void openKept(f)}>
                Open
              </Button>
            </li>
          ))}
        </ul>
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
  const [hours, setHours] = useState('48')
  const [speed, setSpeed] = useState<string>('0')
  const [problem, setProblem] = useState<string | null>(null)
  const [playing, setPlaying] = useState<AbortController | null>(null)
  useEffect(() => () => playing?.abort(), [playing])

  const play = async () => {
    const long = numberTyped(hours)
    if (typeof long !== 'number' || long < 0.01 || long > 336)
      return setProblem('Hours must be a number from 0.01 to 336, such as 48.')
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
    <div className={styles.form}>
      <p className={styles.quiet}>
        Stands in for a meter on this load’s plug: it plays what the load might truly draw, not what the job
        believes, and sends rows as such meters save them.
      </p>
      <div className={styles.fields}>
        <FormField label="Log for" unit="h" value={hours} faults={[]} path="hours" onChange={setHours} />
        <fieldset className={`${styles.tools} ${styles.plain} ${styles.rest}`} aria-label="How fast">
          {speeds.map(([value, label]) => (
            <Button
              key={value}
              size="small"
              variant={speed === value ? 'contained' : 'outlined'}
              aria-pressed={speed === value}
              onClick={() => setSpeed(value)}
            >
              {label}
            </Button>
          ))}
        </fieldset>
      </div>
      {problem && (
        <p role="alert" className={styles.alert}>
          {problem}
        </p>
      )}
      <div className={styles.tools}>
        {playing ? (
          <Button variant="outlined" onClick={() => playing.abort()}>
            Stop the meter, keep what it logged
          </Button>
        ) : (
          <Button
            variant="outlined"
            onClick={() => void play()}
            disabled={pending > 0}
            title={pending > 0 ? 'The last change is being saved first' : undefined}
          >
            Start the meter
          </Button>
        )}
      </div>
    </div>
  )
}
