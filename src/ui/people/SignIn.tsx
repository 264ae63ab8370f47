'use client'
import { Button, Divider } from '@mui/material'
import { startAuthentication } from '@simplewebauthn/browser'
import { KeyRound } from 'lucide-react'
import { useState } from 'react'
import { call } from '../api'
import { useAwake } from '../common/awake'
import { Problem } from '../common/Problem'
import { Column, Quiet, Row } from '../common/pieces'
import { LineField } from '../form/inputs'
import { EntryPage, PlainForm, Sent, sent, Way } from './entry'
import { throughPasskey } from './passkey'

interface Props {
  /** where to go on; a page of ours */
  next: string
  demo: boolean
}

/** A whole page: nothing of who was here before stays in memory. */
const goOn = (to: string) => window.location.assign(to)

const demoWays = [
  { as: 'designer', about: 'plans and prices jobs' },
  { as: 'technician', about: 'works at the house' },
  { as: 'owner', about: 'people and settings too' },
] as const

/** How one comes in: by password and second step, by passkey, or, in a demo, by one press. */
export function SignIn({ next, demo }: Props) {
  const [second, setSecond] = useState(false)
  const [unconfirmed, setUnconfirmed] = useState<string | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const awake = useAwake()
  const ways = (
    <>
      <Way href={`/sign-up?next=${encodeURIComponent(next)}`}>Open an account</Way>
      <Way href="/recover">The password is lost</Way>
    </>
  )
  if (second) return <SecondStep onIn={() => goOn(next)} onBack={() => setSecond(false)} />

  const enter = async (as: string) => {
    const reply = await call('/api/auth/demo/enter', 'POST', { as })
    if (reply.ok) goOn(next)
    else setProblem(reply.message)
  }
  const byPasskey = async () => {
    setProblem(null)
    const reply = await throughPasskey(
      'generate-authenticate-options',
      startAuthentication,
      'verify-authentication',
    )
    if (reply === 'none') return setProblem('No passkey was given. Try again, or take the password.')
    if (reply.ok) goOn(next)
    else setProblem(reply.message)
  }
  return (
    <EntryPage title="Sign in" ways={ways}>
      {demo && (
        <Column component="section" aria-label="Look around">
          <Quiet>This is a demo: look around as one of Headwater Electric. Nothing is asked of you.</Quiet>
          {demoWays.map(({ as, about }) => (
            <Button
              key={as}
              variant="outlined"
              disabled={!awake}
              onClick={() => enter(as)}
              sx={{ justifyContent: 'flex-start' }}
            >
              Look around as {as}: {about}
            </Button>
          ))}
          <Divider>or</Divider>
        </Column>
      )}
      <PlainForm
        label="Sign in"
        values={{ email: '', password: '' }}
        save="Sign in"
        onSend={async values => {
          setUnconfirmed(null)
          const reply = await call<{ twoFactorRedirect?: boolean }>('/api/auth/sign-in/email', 'POST', values)
          if (reply.ok) {
            if (reply.data.twoFactorRedirect) setSecond(true)
            else goOn(next)
            return null
          }
          if (reply.status === 403) setUnconfirmed(values.email)
          return reply.faults.length ? reply.faults : reply.message
        }}
      >
        <LineField
          name="email"
          label="E-mail address"
          type="email"
          autoComplete="username webauthn"
          most={254}
        />
        <LineField
          name="password"
          label="Password"
          type="password"
          autoComplete="current-password"
          most={128}
        />
      </PlainForm>
      {unconfirmed && <AnotherLetter key={unconfirmed} email={unconfirmed} />}
      <Button
        variant="outlined"
        disabled={!awake}
        startIcon={<KeyRound size={18} aria-hidden />}
        onClick={byPasskey}
      >
        Sign in with a passkey
      </Button>
      <Problem>{problem}</Problem>
    </EntryPage>
  )
}

function AnotherLetter({ email }: { email: string }) {
  const [said, setSaid] = useState<string | null>(null)
  if (said) return <Sent>{said}</Sent>
  const send = async () => {
    const reply = await call('/api/auth/send-verification-email', 'POST', { email })
    setSaid(reply.ok ? `Another letter is on its way to ${email}.` : reply.message)
  }
  return <Button onClick={send}>Send the letter again</Button>
}

function SecondStep({ onIn, onBack }: { onIn: () => void; onBack: () => void }) {
  const [aside, setAside] = useState(false)
  return (
    <EntryPage title="The second step">
      <Quiet>
        {aside
          ? 'Give one of the codes that you put aside. Each opens once.'
          : 'Give the six digits that your app shows now.'}
      </Quiet>
      <PlainForm
        key={String(aside)}
        label="The second step"
        values={{ code: '' }}
        save="Go on"
        onSend={values =>
          sent(`/api/auth/two-factor/${aside ? 'verify-backup-code' : 'verify-totp'}`, values, onIn)
        }
      >
        <LineField name="code" label="Code" autoFocus autoComplete="one-time-code" most={40} />
      </PlainForm>
      <Row>
        <Button onClick={() => setAside(!aside)}>{aside ? 'I have the app' : 'I have no app here'}</Button>
        <Button onClick={onBack}>Begin anew</Button>
      </Row>
    </EntryPage>
  )
}
