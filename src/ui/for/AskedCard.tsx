import { Alert, Button, LinearProgress } from '@mui/material'
import { Camera, Check, FileUp } from 'lucide-react'
import { useState } from 'react'
import type { Answered, AskedOfCustomer } from '@/core/assess/sent'
import { plateSchema } from '@/core/loads/nameplate'
import { fail, fault, ok, parseWith } from '@/core/outcome'
import { call, faultLine, largestSent, upload } from '../api'
import { FileButton, pictures } from '../common/FileButton'
import { Problem } from '../common/Problem'
import { Card, Columns, Quiet, Row } from '../common/pieces'
import { Thumbnails } from '../common/Thumbnails'
import { Form, OtherFaults, Save } from '../form/Form'
import { LineField, NumberField } from '../form/inputs'
import { useSheet } from '../form/useSheet'

interface Props {
  token: string
  asked: AskedOfCustomer
  onSent: (asked: AskedOfCustomer[]) => void
}

interface Sent {
  asked: AskedOfCustomer[]
}

const states = { open: 'still needed', here: 'received', enough: 'received, nothing more needed' } as const
const plateFields = [
  ['volts', 'Volts', 'V'],
  ['amps', 'Amps', 'A'],
  ['watts', 'Watts', 'W'],
  ['horsepower', 'Horsepower', 'hp'],
  ['lockedRotorA', 'LRA', 'A'],
] as const
const tooLarge = `larger than ${largestSent / 1e6} MB: take the picture anew, or send a smaller copy`

/** One thing that is asked for: why, how, and the ways to answer it. */
export function AskedCard({ token, asked, onSent }: Props) {
  const [problem, setProblem] = useState<string | null>(null)
  const [share, setShare] = useState<number | null>(null)
  const [typing, setTyping] = useState(false)
  const at = `/api/for/${token}`

  const sendFiles = async (chosen: File[], what: 'photo' | 'file') => {
    const problems: string[] = []
    setProblem(null)
    for (const [n, file] of chosen.entries()) {
      if (file.size > largestSent) {
        problems.push(`${file.name} is ${tooLarge}.`)
        continue
      }
      setShare(n / chosen.length)
      const about = `request=${encodeURIComponent(asked.key)}&name=${encodeURIComponent(file.name)}`
      const answer = await upload<Sent>(`${at}/${what}?${about}`, file, part =>
        setShare((n + part) / chosen.length),
      )
      if (answer.ok) onSent(answer.data.asked)
      else problems.push(`${file.name}: ${answer.message}`)
    }
    setShare(null)
    setProblem(problems.join(' ') || null)
  }
  /** What keeps it from being sent, or nothing. */
  const sendAnswer = async (answer: Omit<Answered, 'key'>): Promise<string | null> => {
    setProblem(null)
    const sent = await call<Sent>(at, 'POST', { key: asked.key, ...answer })
    if (!sent.ok) return sent.faults.map(faultLine).join('; ') || sent.message
    onSent(sent.data.asked)
    setTyping(false)
    return null
  }
  const sayUnknown = async () => setProblem(await sendAnswer({ unknown: true }))
  const busy = share !== null
  const plate = asked.wants === 'nameplate'
  return (
    <Card
      component="li"
      title={asked.title}
      data-state={asked.state}
      sx={{
        borderLeft: 6,
        borderLeftColor: asked.state === 'open' ? 'water.live' : 'divider',
        '& .MuiButton-root': { minHeight: 46 },
      }}
    >
      <Row component="p" spacing={0.5} sx={{ color: 'primary.main', fontWeight: 650 }}>
        {asked.state !== 'open' && <Check size={16} strokeWidth={3} aria-hidden />} {states[asked.state]}
      </Row>
      <p>{asked.why}</p>
      <Quiet sx={{ fontSize: 'inherit' }}>{asked.how}</Quiet>
      {asked.note && <Alert>The installer adds: {asked.note}</Alert>}
      <Thumbnails photos={asked.photos} srcOf={p => `${at}/photos/${p.id}`} />
      {asked.said && (
        <p>
          <b>You said: {asked.said}</b>
        </p>
      )}
      {busy && (
        <LinearProgress variant="determinate" value={100 * share} aria-label={`Sending ${asked.title}`} />
      )}
      {asked.state !== 'enough' && (
        <Row>
          {asked.wants === 'file' ? (
            <FileButton
              what={`File: ${asked.title}`}
              accept=".xml,.csv,text/xml,application/xml,text/csv"
              variant="contained"
              disabled={busy}
              startIcon={<FileUp size={20} aria-hidden />}
              onFiles={chosen => sendFiles(chosen, 'file')}
            >
              Send the file
            </FileButton>
          ) : (
            <FileButton
              what={`Photograph: ${asked.title}`}
              accept={pictures}
              multiple
              variant="contained"
              disabled={busy}
              startIcon={<Camera size={20} aria-hidden />}
              onFiles={chosen => sendFiles(chosen, 'photo')}
            >
              {asked.photos.length ? 'Another photograph' : 'Take or choose a photograph'}
            </FileButton>
          )}
          {!typing && asked.wants !== 'file' && (
            <Button disabled={busy} variant="outlined" onClick={() => setTyping(true)}>
              {plate ? 'Type what the plate says' : 'Write a few words'}
            </Button>
          )}
          <Button disabled={busy} onClick={() => void sayUnknown()}>
            I don’t know
          </Button>
        </Row>
      )}
      {typing && (
        <Typed
          keep={`spillway.for.${asked.key}`}
          plate={plate}
          onSend={sendAnswer}
          onClose={() => setTyping(false)}
        />
      )}
      <Problem>{problem}</Problem>
    </Card>
  )
}

interface TypedProps {
  keep: string
  plate: boolean
  onSend: (answer: Omit<Answered, 'key'>) => Promise<string | null>
  onClose: () => void
}

/** What a plate says, figure by figure as printed, or a few words. */
function Typed({ keep, plate, onSend, onClose }: TypedProps) {
  const sheet = useSheet<Record<string, number | string>, Omit<Answered, 'key'>>({
    values: { text: '', ...Object.fromEntries(plateFields.map(([key]) => [key, ''])) },
    keep,
    read: typed => {
      const given = Object.fromEntries(
        Object.entries(typed)
          .map(([key, value]) => [key, typeof value === 'string' ? value.trim() : value])
          .filter(([, value]) => value !== ''),
      )
      if (!plate)
        return given.text
          ? ok({ text: String(given.text) })
          : fail(fault('text', 'is empty: write a few words first'))
      const odd = plateFields.find(([key]) => typeof given[key] === 'string')
      if (odd)
        return fail(fault(odd[0], `is “${given[odd[0]]}”, which is no number. Write 11.5, for example`))
      if (!Object.keys(given).length)
        return fail(fault('$', 'Fill in at least one field, or choose “I don’t know”.'))
      const parsed = parseWith(plateSchema, given)
      return parsed.ok ? ok({ plate: parsed.value }) : parsed
    },
    save: onSend,
  })
  return (
    <Form sheet={sheet}>
      {plate && (
        <Columns least={130}>
          {plateFields.map(([key, label, unit]) => (
            <NumberField key={key} name={key} label={label} sign={unit} />
          ))}
        </Columns>
      )}
      <LineField
        name="text"
        label={plate ? 'Anything else it says' : 'In a few words'}
        lines={2}
        most={300}
      />
      <OtherFaults />
      <Row>
        <Save>Send</Save>
        <Button onClick={onClose}>Not now</Button>
      </Row>
    </Form>
  )
}
