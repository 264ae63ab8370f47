import { Alert, Button, LinearProgress } from '@mui/material'
import { Camera, Check, FileUp } from 'lucide-react'
import { useState } from 'react'
import type { Answered, AskedOfCustomer } from '@/core/assess/sent'
import type { Language } from '@/core/languages'
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
import { sayIn } from './say'

interface Props {
  token: string
  language: Language
  asked: AskedOfCustomer
  onSent: (asked: AskedOfCustomer[]) => void
}

interface Sent {
  asked: AskedOfCustomer[]
}

const plateFields = [
  ['volts', 'V'],
  ['amps', 'A'],
  ['watts', 'W'],
  ['horsepower', 'hp'],
  ['lockedRotorA', 'A'],
] as const

/** One thing that is asked for: why, how, and the ways to answer it. */
export function AskedCard({ token, language, asked, onSent }: Props) {
  const say = sayIn(language)
  const [problem, setProblem] = useState<string | null>(null)
  const [share, setShare] = useState<number | null>(null)
  const [typing, setTyping] = useState(false)
  const at = `/api/for/${token}`

  const sendFiles = async (chosen: File[], what: 'photo' | 'file') => {
    const problems: string[] = []
    setProblem(null)
    for (const [n, file] of chosen.entries()) {
      if (file.size > largestSent) {
        problems.push(say('tooLarge', { file: file.name, most: String(largestSent / 1e6) }))
        continue
      }
      setShare(n / chosen.length)
      const about = `language=${language}&request=${encodeURIComponent(asked.key)}&name=${encodeURIComponent(file.name)}`
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
    const sent = await call<Sent>(`${at}?language=${language}`, 'POST', { key: asked.key, ...answer })
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
        {asked.state !== 'open' && <Check size={16} strokeWidth={3} aria-hidden />}{' '}
        {say(`state.${asked.state}`)}
      </Row>
      <p>{asked.why}</p>
      <Quiet sx={{ fontSize: 'inherit' }}>{asked.how}</Quiet>
      {asked.note && <Alert>{say('adds', { note: asked.note })}</Alert>}
      <Thumbnails photos={asked.photos} srcOf={p => `${at}/photos/${p.id}`} />
      {asked.said && (
        <p>
          <b>{say('youSaid', { said: asked.said })}</b>
        </p>
      )}
      {busy && (
        <LinearProgress
          variant="determinate"
          value={100 * share}
          aria-label={say('sending', { what: asked.title })}
        />
      )}
      {asked.state !== 'enough' && (
        <Row>
          {asked.wants === 'file' ? (
            <FileButton
              what={say('file', { what: asked.title })}
              accept=".xml,.csv,text/xml,application/xml,text/csv"
              variant="contained"
              disabled={busy}
              startIcon={<FileUp size={20} aria-hidden />}
              onFiles={chosen => sendFiles(chosen, 'file')}
            >
              {say('sendFile')}
            </FileButton>
          ) : (
            <FileButton
              what={say('photograph', { what: asked.title })}
              accept={pictures}
              multiple
              variant="contained"
              disabled={busy}
              startIcon={<Camera size={20} aria-hidden />}
              onFiles={chosen => sendFiles(chosen, 'photo')}
            >
              {say(asked.photos.length ? 'another' : 'take')}
            </FileButton>
          )}
          {!typing && asked.wants !== 'file' && (
            <Button disabled={busy} variant="outlined" onClick={() => setTyping(true)}>
              {say(plate ? 'typePlate' : 'fewWords')}
            </Button>
          )}
          <Button disabled={busy} onClick={() => void sayUnknown()}>
            {say('unknown')}
          </Button>
        </Row>
      )}
      {typing && (
        <Typed
          language={language}
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
  language: Language
  keep: string
  plate: boolean
  onSend: (answer: Omit<Answered, 'key'>) => Promise<string | null>
  onClose: () => void
}

/** What a plate says, figure by figure as printed, or a few words. */
function Typed({ language, keep, plate, onSend, onClose }: TypedProps) {
  const say = sayIn(language)
  const sheet = useSheet<Record<string, number | string>, Omit<Answered, 'key'>>({
    values: { text: '', ...Object.fromEntries(plateFields.map(([key]) => [key, ''])) },
    keep,
    read: typed => {
      const given = Object.fromEntries(
        Object.entries(typed)
          .map(([key, value]) => [key, typeof value === 'string' ? value.trim() : value])
          .filter(([, value]) => value !== ''),
      )
      if (!plate) return given.text ? ok({ text: String(given.text) }) : fail(fault('text', say('empty')))
      const odd = plateFields.find(([key]) => typeof given[key] === 'string')
      if (odd) return fail(fault(odd[0], say('noNumber', { said: String(given[odd[0]]) })))
      if (!Object.keys(given).length) return fail(fault('$', say('oneField')))
      const parsed = parseWith(plateSchema, given)
      return parsed.ok ? ok({ plate: parsed.value }) : parsed
    },
    save: onSend,
  })
  return (
    <Form sheet={sheet}>
      {plate && (
        <Columns least={130}>
          {plateFields.map(([key, unit]) => (
            <NumberField key={key} name={key} label={say(key)} sign={unit} />
          ))}
        </Columns>
      )}
      <LineField name="text" label={say(plate ? 'anything' : 'inWords')} lines={2} most={300} />
      <OtherFaults />
      <Row>
        <Save>{say('send')}</Save>
        <Button onClick={onClose}>{say('notNow')}</Button>
      </Row>
    </Form>
  )
}
