'use client'
import Button from '@mui/material/Button'
import { Camera, Check, FileUp } from 'lucide-react'
import { type FormEvent, useId, useState } from 'react'
import { plateSchema } from '@/core/ask/evidence'
import type { Answered, AskedOfCustomer } from '@/core/ask/sent'
import { parseWith } from '@/core/outcome'
import { typedNumber } from '@/core/typed-number'
import { call, faultLine, largestSent, upload } from '../api'
import { FileButton, pictures } from '../common/FileButton'
import styles from './CustomerPage.module.css'

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
  const name = useId()
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
  const sendAnswer = async (answer: Omit<Answered, 'key'>) => {
    setProblem(null)
    const sent = await call<Sent>(at, 'POST', { key: asked.key, ...answer })
    if (!sent.ok) {
      setProblem(sent.faults.map(faultLine).join('; ') || sent.message)
      return false
    }
    onSent(sent.data.asked)
    setTyping(false)
    return true
  }
  const busy = share !== null
  const plate = asked.wants === 'nameplate'
  return (
    <li className={styles.card} data-state={asked.state} aria-labelledby={name}>
      <h2 id={name}>{asked.title}</h2>
      <p className={styles.state}>
        {asked.state !== 'open' && <Check size={16} strokeWidth={3} aria-hidden />} {states[asked.state]}
      </p>
      <p>{asked.why}</p>
      <p className={styles.how}>{asked.how}</p>
      {asked.note && <p className={styles.note}>The installer adds: {asked.note}</p>}
      {asked.photos.length > 0 && (
        <ul className={styles.thumbs}>
          {asked.photos.map(p => (
            <li key={p.id}>
              {/* biome-ignore lint/performance/noImgElement: its bytes come from the database, already small */}
              <img src={`${at}/photos/${p.id}`} alt={p.name} />
            </li>
          ))}
        </ul>
      )}
      {asked.said && <p className={styles.said}>You said: {asked.said}</p>}
      {busy && <progress className={styles.progress} value={share} aria-label={`Sending ${asked.title}`} />}
      {asked.state !== 'enough' && (
        <div className={styles.ways}>
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
          <Button disabled={busy} onClick={() => void sendAnswer({ unknown: true })}>
            I don’t know
          </Button>
        </div>
      )}
      {typing && (
        <Typed plate={plate} onSend={sendAnswer} onProblem={setProblem} onClose={() => setTyping(false)} />
      )}
      {problem && (
        <p className={styles.problem} role="alert">
          {problem}
        </p>
      )}
    </li>
  )
}

interface TypedProps {
  plate: boolean
  onSend: (answer: Omit<Answered, 'key'>) => Promise<boolean>
  onProblem: (problem: string | null) => void
  onClose: () => void
}

/** What a plate says, figure by figure as printed, or a few words. */
function Typed({ plate, onSend, onProblem, onClose }: TypedProps) {
  const [values, setValues] = useState<Record<string, string>>({})
  const set = (key: string, value: string) => setValues({ ...values, [key]: value })
  const submit = (event: FormEvent) => {
    event.preventDefault()
    const text = values.text?.trim()
    if (!plate) return text ? void onSend({ text }) : onProblem('Write a few words first.')
    const figures: Record<string, number> = {}
    for (const [key, label, unit] of plateFields) {
      const text = values[key]?.trim()
      if (!text) continue
      const typed = typedNumber(text, unit)
      if ('problem' in typed) return onProblem(`${label}: “${text}” is no number. Write 11.5, for example.`)
      figures[key] = typed.value
    }
    const parsed = parseWith(plateSchema, { ...figures, ...(text && { text }) })
    if (!parsed.ok) {
      const [fault] = parsed.faults
      const label = plateFields.find(([key]) => key === fault?.path)?.[1] ?? 'It'
      return onProblem(`${label} ${fault?.message}.`)
    }
    if (!Object.keys(parsed.value).length)
      return onProblem('Fill in at least one field, or choose “I don’t know”.')
    void onSend({ plate: parsed.value })
  }
  return (
    <form className={styles.typed} onSubmit={submit} noValidate>
      {plate &&
        plateFields.map(([key, label, unit]) => (
          <label key={key}>
            {label}
            <span>
              <input
                inputMode="decimal"
                autoComplete="off"
                value={values[key] ?? ''}
                onChange={e => set(key, e.target.value)}
              />
              {unit}
            </span>
          </label>
        ))}
      <label className={styles.wide}>
        {plate ? 'Anything else it says' : 'In a few words'}
        <textarea
          rows={2}
          maxLength={300}
          value={values.text ?? ''}
          onChange={e => set('text', e.target.value)}
        />
      </label>
      <div className={styles.wide}>
        <Button type="submit" variant="contained">
          Send
        </Button>
        <Button onClick={onClose}>Not now</Button>
      </div>
    </form>
  )
}
