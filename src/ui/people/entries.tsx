'use client'
import { Button } from '@mui/material'
import { useState } from 'react'
import { type Role, roleWords } from '@/core/firm/roles'
import { call } from '../api'
import { Problem } from '../common/Problem'
import { Quiet } from '../common/pieces'
import { LineField } from '../form/inputs'
import { EntryPage, PlainForm, passwordHelp, Sent, sent, Way } from './entry'

/** Opens an account; the address is confirmed by a letter before it opens anything. */
export function SignUp({ next, email = '' }: { next: string; email?: string }) {
  const [to, setTo] = useState<string | null>(null)
  return (
    <EntryPage
      title="Open an account"
      ways={<Way href={`/sign-in?next=${encodeURIComponent(next)}`}>I have an account</Way>}
    >
      {to ? (
        <Sent>
          A letter is on its way to {to}. Open what it holds, and you are in. It can take some minutes; look
          among unwanted mail too.
        </Sent>
      ) : (
        <PlainForm
          label="Open an account"
          values={{ name: '', email, password: '' }}
          save="Open the account"
          onSend={values => sent('/api/auth/sign-up/email', { ...values, next }, () => setTo(values.email))}
        >
          <LineField
            name="name"
            label="Name"
            help="as your firm calls you"
            autoComplete="name"
            most={60}
            autoFocus
          />
          <LineField name="email" label="E-mail address" type="email" autoComplete="email" most={254} />
          <LineField
            name="password"
            label="Password"
            type="password"
            autoComplete="new-password"
            most={128}
            help={passwordHelp}
          />
        </PlainForm>
      )}
    </EntryPage>
  )
}

/** Asks for a letter by which a new password is set. */
export function Recover() {
  const [to, setTo] = useState<string | null>(null)
  return (
    <EntryPage title="Set a new password" ways={<Way href="/sign-in">Back to sign in</Way>}>
      {to ? (
        <Sent>If {to} has an account here, a letter is on its way. It opens once, for half an hour.</Sent>
      ) : (
        <PlainForm
          label="Set a new password"
          values={{ email: '' }}
          save="Send me a letter"
          onSend={values => sent('/api/auth/request-password-reset', values, () => setTo(values.email))}
        >
          <LineField
            name="email"
            label="E-mail address"
            type="email"
            autoComplete="email"
            most={254}
            autoFocus
          />
        </PlainForm>
      )}
    </EntryPage>
  )
}

/** Where the letter leads: the new password, once. */
export function NewPassword({ token }: { token: string }) {
  const [done, setDone] = useState(false)
  return (
    <EntryPage title="Set a new password" ways={<Way href="/recover">Ask for another letter</Way>}>
      {done ? (
        <>
          <Sent>The new password holds. Every session of yours was ended.</Sent>
          <Button variant="contained" href="/sign-in">
            Sign in
          </Button>
        </>
      ) : (
        <PlainForm
          label="Set a new password"
          values={{ newPassword: '' }}
          save="Set the password"
          onSend={values => sent('/api/auth/reset-password', { ...values, token }, () => setDone(true))}
        >
          <LineField
            name="newPassword"
            label="New password"
            type="password"
            autoComplete="new-password"
            most={128}
            help={passwordHelp}
            autoFocus
          />
        </PlainForm>
      )}
    </EntryPage>
  )
}

interface JoinProps {
  token: string
  invited: { firm: string; role: Role; email: string } | null
  /** the address of who is signed in */
  email: string | null
}

/** What a firm’s invitation leads to. */
export function Join({ token, invited, email }: JoinProps) {
  const [problem, setProblem] = useState<string | null>(null)
  if (!invited)
    return (
      <EntryPage title="This invitation is no longer valid" ways={<Way href="/sign-in">Sign in</Way>}>
        <Quiet>It was used, withdrawn, or is older than a week. Ask the firm for another.</Quiet>
      </EntryPage>
    )
  const here = encodeURIComponent(`/join/${token}`)
  const join = async () => {
    const reply = await call(`/api/join/${token}`, 'POST', {})
    if (reply.ok) window.location.assign('/jobs')
    else setProblem(reply.message)
  }
  return (
    <EntryPage title={`Work with ${invited.firm}`}>
      <p>
        {invited.firm} invites {invited.email} as {roleWords[invited.role].name.toLowerCase()}, who{' '}
        {roleWords[invited.role].about}.
      </p>
      {email === invited.email ? (
        <Button variant="contained" onClick={join}>
          Join {invited.firm}
        </Button>
      ) : (
        <>
          {email && (
            <Problem severity="info">
              You are signed in as {email}. The invitation is for {invited.email}: sign in with that address.
            </Problem>
          )}
          <Button variant="contained" href={`/sign-in?next=${here}`}>
            Sign in as {invited.email}
          </Button>
          <Button href={`/sign-up?next=${here}&email=${encodeURIComponent(invited.email)}`}>
            Open an account for {invited.email}
          </Button>
        </>
      )}
      <Problem>{problem}</Problem>
    </EntryPage>
  )
}
