'use client'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { Camera } from 'lucide-react'
import { useEffect, useState } from 'react'
import { feedOf, positionText } from '@/core/panel/positions'
import { type Circuit, type Panel, tracedSchema } from '@/core/panel/schema'
import { largestSent } from '../api'
import { FileButton, pictures } from '../common/FileButton'
import { today } from '../common/today'
import { useWorkspace } from '../workspace/store'
import { keepPhoto } from './offline'
import styles from './TraceView.module.css'

interface Props {
  panel: Panel
  circuit: Circuit
  onDone: () => void
  onPhoto: () => Promise<void>
}

const clock = (seconds: number) => `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`

/** One breaker: off, what died, how sure, and on to the next. */
export function TraceCard({ panel, circuit, onDone, onPhoto }: Props) {
  const id = useWorkspace(s => s.id)
  const person = useWorkspace(s => s.person)
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const [died, setDied] = useState(circuit.traced?.died ?? '')
  const [offAt, setOffAt] = useState<number | null>(null)
  const [seconds, setSeconds] = useState(0)
  const [problem, setProblem] = useState<string | null>(null)
  useEffect(() => {
    if (offAt === null) return
    const timer = setInterval(() => setSeconds(Math.round((Date.now() - offAt) / 1000)), 1000)
    return () => clearInterval(timer)
  }, [offAt])
  const write = (found: 'known' | 'doubtful' | 'nothing') => {
    const what = died.trim()
    if (found !== 'nothing' && !what) return setProblem('Write what died, or choose “Nothing died”')
    const parsed = tracedSchema.shape.died.safeParse(what || undefined)
    if (!parsed.success) return setProblem(parsed.error.issues[0]?.message ?? 'cannot be taken')
    const [fault] = act({
      op: 'traceCircuit',
      circuitId: circuit.id,
      traced: {
        by: person,
        on: today(),
        found,
        ...(parsed.data && { died: parsed.data }),
        ...(offAt !== null && { seconds: Math.min(86_400, Math.round((Date.now() - offAt) / 1000)) }),
      },
    })
    if (fault) return setProblem(fault.message)
    say(`${positionText(panel, circuit)} written down. Switch it on again.`)
    onDone()
  }
  const takePhoto = async (file: File) => {
    if (file.size > largestSent) return setProblem(`${file.name} is larger than ${largestSent / 1e6} MB`)
    const name = `${positionText(panel, circuit)} ${circuit.label || 'unlabelled'}, traced`.slice(0, 80)
    await keepPhoto(id, crypto.randomUUID(), { blob: file, circuitId: circuit.id, name })
    await onPhoto()
  }
  const likely = [circuit.label, ...circuit.loads.map(l => l.name)].filter(Boolean)
  const leg = feedOf(panel, circuit)
  return (
    <section className={styles.card} aria-label={`Breaker ${positionText(panel, circuit)}`}>
      <p className={styles.place}>{positionText(panel, circuit)}</p>
      <p className={styles.what}>
        {circuit.label || 'unlabelled'} · {circuit.breakerA} A · {leg === 'both' ? '240 V' : leg}
      </p>
      {circuit.traced && (
        <p className={styles.before}>
          {circuit.traced.by}, {circuit.traced.on}: {words[circuit.traced.found]}
          {circuit.traced.died && `, ${circuit.traced.died}`}
        </p>
      )}
      {offAt === null ? (
        <Button
          className={styles.off}
          variant="contained"
          onClick={() => {
            setSeconds(0)
            setOffAt(Date.now())
          }}
        >
          I switched it off
        </Button>
      ) : (
        <p className={styles.timer} role="timer">
          off for <b>{clock(seconds)}</b>
        </p>
      )}
      <TextField
        label="What died?"
        value={died}
        error={problem !== null}
        helperText={problem ?? 'rooms, outlets, appliances'}
        multiline
        minRows={2}
        onChange={e => {
          setDied(e.target.value.replace(/[\r\n]+/g, ' '))
          setProblem(null)
        }}
      />
      <div className={styles.likely}>
        {[...new Set(likely)].map(text => (
          <Button key={text} variant="outlined" onClick={() => setDied(died ? `${died}, ${text}` : text)}>
            {text}
          </Button>
        ))}
      </div>
      <div className={styles.answers}>
        <Button variant="contained" onClick={() => write('known')}>
          Known
        </Button>
        <Button variant="outlined" onClick={() => write('doubtful')}>
          Doubtful
        </Button>
        <Button variant="outlined" onClick={() => write('nothing')}>
          Nothing died
        </Button>
      </div>
      <div className={styles.more}>
        <FileButton
          what="Photograph of this circuit"
          accept={pictures}
          camera
          startIcon={<Camera size={20} aria-hidden />}
          onFiles={([file]) => takePhoto(file)}
        >
          Photograph
        </FileButton>
        <Button onClick={onDone}>Later</Button>
      </div>
    </section>
  )
}

const words = { known: 'known', doubtful: 'doubtful', nothing: 'nothing died' } as const
