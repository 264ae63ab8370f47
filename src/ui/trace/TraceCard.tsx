import { Box, Button, Paper, Typography } from '@mui/material'
import { Camera } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import { fail, fault, parseWith } from '@/core/outcome'
import { feedOf, positionText } from '@/core/panel/positions'
import { type Circuit, type Panel, tracedSchema } from '@/core/panel/schema'
import { largestSent } from '../api'
import { FileButton, pictures } from '../common/FileButton'
import { Columns, Quiet, Row } from '../common/pieces'
import { today } from '../common/today'
import { Form, OtherFaults } from '../form/Form'
import { LineField } from '../form/inputs'
import { useSheet } from '../form/useSheet'
import { text } from '../theme/tokens'
import { useWorkspace } from '../workspace/store'
import { keepPhoto } from './offline'

type Traced = NonNullable<Circuit['traced']>

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
  const [offAt, setOffAt] = useState<number | null>(null)
  const [seconds, setSeconds] = useState(0)
  const found = useRef<Traced['found']>('known')
  useEffect(() => {
    if (offAt === null) return
    const timer = setInterval(() => setSeconds(Math.round((Date.now() - offAt) / 1000)), 1000)
    return () => clearInterval(timer)
  }, [offAt])
  const sheet = useSheet<{ died: string }, Traced>({
    values: { died: circuit.traced?.died ?? '' },
    keep: `spillway.trace.${circuit.id}`,
    read: ({ died }) => {
      const what = died.replace(/[\r\n]+/g, ' ').trim()
      if (found.current !== 'nothing' && !what)
        return fail(fault('$', 'Write what died, or choose “Nothing died”'))
      return parseWith(tracedSchema, {
        by: person,
        on: today(),
        found: found.current,
        ...(what && { died: what }),
        ...(offAt !== null && { seconds: Math.min(86_400, Math.round((Date.now() - offAt) / 1000)) }),
      })
    },
    save: traced => act({ op: 'traceCircuit', circuitId: circuit.id, traced }),
    done: () => {
      say(`${positionText(panel, circuit)} written down. Switch it on again.`)
      onDone()
    },
  })
  const write = (what: Traced['found']) => {
    found.current = what
    void sheet.submit()
  }
  const append = (text: string) => {
    const died = sheet.form.getValues('died')
    sheet.form.setValue('died', died ? `${died}, ${text}` : text, { shouldDirty: true })
  }
  const takePhoto = async (file: File) => {
    if (file.size > largestSent) return say(`${file.name} is larger than ${largestSent / 1e6} MB`)
    const name = `${positionText(panel, circuit)} ${circuit.label || 'unlabelled'}, traced`.slice(0, 80)
    await keepPhoto(id, crypto.randomUUID(), {
      blob: file,
      about: { kind: 'circuit', circuitId: circuit.id },
      name,
    })
    await onPhoto()
  }
  const likely = [circuit.label, ...circuit.loads.map(l => l.name)].filter(Boolean)
  const leg = feedOf(panel, circuit)
  return (
    <Paper
      component="section"
      variant="outlined"
      aria-label={`Breaker ${positionText(panel, circuit)}`}
      sx={{ p: 2, '& .MuiButton-root': { minHeight: 48 } }}
    >
      <Form sheet={sheet}>
        <Box sx={{ fontSize: text.huge, fontWeight: 800, lineHeight: 1 }}>{positionText(panel, circuit)}</Box>
        <Typography variant="h2" component="p" sx={{ overflowWrap: 'anywhere' }}>
          {circuit.label || 'unlabelled'} · {circuit.breakerA} A · {leg === 'both' ? '240 V' : leg}
        </Typography>
        {circuit.traced && (
          <Quiet>
            {circuit.traced.by}, {circuit.traced.on}: {words[circuit.traced.found]}
            {circuit.traced.died && `, ${circuit.traced.died}`}
          </Quiet>
        )}
        {offAt === null ? (
          <Button
            variant="contained"
            size="large"
            onClick={() => {
              setSeconds(0)
              setOffAt(Date.now())
            }}
          >
            I switched it off
          </Button>
        ) : (
          <p role="timer">
            off for <Typography variant="figure">{clock(seconds)}</Typography>
          </p>
        )}
        <LineField name="died" label="What died?" help="rooms, outlets, appliances" lines={2} most={400} />
        <OtherFaults />
        <Row>
          {[...new Set(likely)].map(label => (
            <Button key={label} variant="outlined" onClick={() => append(label)}>
              {label}
            </Button>
          ))}
        </Row>
        <Columns least={90}>
          <Button variant="contained" onClick={() => write('known')}>
            Known
          </Button>
          <Button variant="outlined" onClick={() => write('doubtful')}>
            Doubtful
          </Button>
          <Button variant="outlined" onClick={() => write('nothing')}>
            Nothing died
          </Button>
        </Columns>
        <Row>
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
        </Row>
      </Form>
    </Paper>
  )
}

const words = { known: 'known', doubtful: 'doubtful', nothing: 'nothing died' } as const
