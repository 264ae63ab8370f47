'use client'
import { Alert, Button, List, ListItem, ListItemText } from '@mui/material'
import { startRegistration } from '@simplewebauthn/browser'
import dynamic from 'next/dynamic'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import { call } from '../api'
import { Popup } from '../common/Popup'
import { Problem } from '../common/Problem'
import { Card, Columns, Quiet, Row, Screen } from '../common/pieces'
import { leaveFor } from '../common/sign-out'
import { type PersonChoice, TopBar } from '../common/TopBar'
import { LineField } from '../form/inputs'
import { PlainForm, passwordHelp, Sent, sent } from './entry'
import { throughPasskey } from './passkey'
import { browserName, momentIn } from './words'

const SecondStepDialog = dynamic(() => import('./SecondStepDialog').then(m => m.SecondStepDialog))

interface Props {
  person: PersonChoice | null
  /** the firm demands a second step, and there is none yet */
  lacksSecondStep: boolean
  name: string
  email: string
  zone: string
  sessions: {
    id: string
    since: string
    lastUsed: string
    address: string | null
    browser: string | null
    current: boolean
  }[]
  ways: {
    hasPassword: boolean
    secondStep: boolean
    passkeys: { id: string; name: string; addedAt: string | null }[]
  }
}

/** How somebody comes in, where they are in, and how to change either. */
export function AccountScreen(props: Props) {
  const { person, name, email, ways, lacksSecondStep } = props
  return (
    <>
      {person && <TopBar person={person} />}
      <Screen
        title="Your account"
        lead={`${name}, ${email}`}
        tools={!person && <Button href="/firms">Your firms</Button>}
      >
        {lacksSecondStep && (
          <Alert severity="warning" action={<Button href="/jobs">Go on when it is on</Button>}>
            {person?.firm ?? 'Your firm'} asks everybody for a second step at sign-in. Turn it on here: until
            then nothing of the firm opens.
          </Alert>
        )}
        <Columns least={340}>
          {ways.hasPassword && <PasswordCard />}
          <PasskeysCard passkeys={ways.passkeys} />
          {ways.hasPassword && <SecondStepCard on={ways.secondStep} />}
          <EmailCard email={email} />
          <EndCard email={email} />
        </Columns>
        <SessionsCard {...props} />
      </Screen>
    </>
  )
}

function PasswordCard() {
  const [done, setDone] = useState(false)
  return (
    <Card title="Password">
      {done ? (
        <Sent>The new password holds. Your other sessions were ended.</Sent>
      ) : (
        <PlainForm
          label="Password"
          values={{ currentPassword: '', newPassword: '' }}
          save="Change the password"
          onSend={values => sent('/api/auth/change-password', values, () => setDone(true))}
        >
          <LineField
            name="currentPassword"
            label="Password until now"
            type="password"
            autoComplete="current-password"
            most={128}
          />
          <LineField
            name="newPassword"
            label="New password"
            type="password"
            autoComplete="new-password"
            most={128}
            help={passwordHelp}
          />
        </PlainForm>
      )}
    </Card>
  )
}

function PasskeysCard({ passkeys }: { passkeys: Props['ways']['passkeys'] }) {
  const router = useRouter()
  const [problem, setProblem] = useState<string | null>(null)
  const add = async () => {
    setProblem(null)
    const reply = await throughPasskey(
      'generate-register-options',
      startRegistration,
      'verify-registration',
      {
        name: browserName(navigator.userAgent),
      },
    )
    if (reply === 'none')
      return setProblem('No passkey was made. This device may have none, or it is here already.')
    if (reply.ok) router.refresh()
    else setProblem(reply.message)
  }
  const remove = async (id: string) => {
    const reply = await call('/api/auth/passkey/delete-passkey', 'POST', { id })
    if (reply.ok) router.refresh()
    else setProblem(reply.message)
  }
  return (
    <Card title="Passkeys" tools={<Button onClick={add}>Add a passkey</Button>}>
      {!passkeys.length && <Quiet>A passkey opens by the lock of your device, and cannot be guessed.</Quiet>}
      <List aria-label="Passkeys" disablePadding>
        {passkeys.map(p => (
          <ListItem
            key={p.id}
            divider
            disableGutters
            secondaryAction={
              <Button size="small" aria-label={`Remove ${p.name}`} onClick={() => remove(p.id)}>
                Remove
              </Button>
            }
          >
            <ListItemText primary={p.name} secondary={p.addedAt ? `added ${p.addedAt.slice(0, 10)}` : ''} />
          </ListItem>
        ))}
      </List>
      <Problem>{problem}</Problem>
    </Card>
  )
}

function SecondStepCard({ on }: { on: boolean }) {
  const router = useRouter()
  const [asking, setAsking] = useState(false)
  return (
    <Card title="Second step">
      {on ? (
        <>
          <Quiet>After the password an app on your phone gives six digits.</Quiet>
          <PlainForm
            label="Turn the second step off"
            values={{ password: '' }}
            save="Turn it off"
            onSend={values => sent('/api/auth/two-factor/disable', values, () => router.refresh())}
          >
            <LineField
              name="password"
              label="Password"
              type="password"
              autoComplete="current-password"
              most={128}
            />
          </PlainForm>
        </>
      ) : (
        <>
          <Quiet>
            A password that was stolen then opens nothing: six digits from an app on your phone are asked too.
          </Quiet>
          <Row>
            <Button variant="outlined" onClick={() => setAsking(true)}>
              Turn it on
            </Button>
          </Row>
        </>
      )}
      {asking && (
        <SecondStepDialog
          onClose={() => {
            setAsking(false)
            router.refresh()
          }}
        />
      )}
    </Card>
  )
}

function EmailCard({ email }: { email: string }) {
  const [to, setTo] = useState<string | null>(null)
  return (
    <Card title="E-mail address">
      {to ? (
        <Sent>
          A letter is on its way to {email}: open it to agree. Then {to} is asked to confirm; until both are
          done you sign in as before.
        </Sent>
      ) : (
        <PlainForm
          label="E-mail address"
          values={{ newEmail: '' }}
          save="Change the address"
          onSend={values => sent('/api/auth/change-email', values, () => setTo(values.newEmail))}
        >
          <LineField name="newEmail" label="New address" type="email" autoComplete="email" most={254} />
        </PlainForm>
      )}
    </Card>
  )
}

function EndCard({ email }: { email: string }) {
  const [asking, setAsking] = useState(false)
  return (
    <Card title="Leave Spillway">
      <Quiet>
        Every session ends. For thirty days signing in takes it back; then your login is gone, and what you
        did stands in your firms under no name.
      </Quiet>
      <Row>
        <Button color="error" onClick={() => setAsking(true)}>
          Delete your account
        </Button>
      </Row>
      {asking && (
        <Popup title="Delete your account" onClose={() => setAsking(false)}>
          <PlainForm
            label="Delete your account"
            values={{ email: '' }}
            save="Delete it"
            onSend={values => sent('/api/account/delete', values, () => leaveFor('/sign-in'))}
          >
            <LineField
              name="email"
              label="Your e-mail address, to be sure"
              help={email}
              most={254}
              autoFocus
            />
          </PlainForm>
        </Popup>
      )}
    </Card>
  )
}

function SessionsCard({ sessions, zone }: Props) {
  const router = useRouter()
  const [problem, setProblem] = useState<string | null>(null)
  const end = async (body: object) => {
    const reply = await call('/api/session', 'POST', body)
    if (reply.ok) router.refresh()
    else setProblem(reply.message)
  }
  return (
    <Card
      title="Sessions"
      tools={sessions.length > 1 && <Button onClick={() => end({ do: 'end others' })}>End all others</Button>}
    >
      <Quiet>A session ends after two weeks without use, and after sixty days at the latest.</Quiet>
      <List aria-label="Sessions" disablePadding>
        {sessions.map(s => (
          <ListItem
            key={s.id}
            divider
            disableGutters
            secondaryAction={
              s.current ? (
                <Quiet>this one</Quiet>
              ) : (
                <Button
                  size="small"
                  aria-label={`End the session of ${browserName(s.browser)}`}
                  onClick={() => end({ do: 'end', sessionId: s.id })}
                >
                  End
                </Button>
              )
            }
          >
            <ListItemText
              sx={{ pr: 8 }}
              primary={`${browserName(s.browser)}${s.address ? `, from ${s.address}` : ''}`}
              secondary={`since ${momentIn(zone, s.since)}, last used ${momentIn(zone, s.lastUsed)}`}
            />
          </ListItem>
        ))}
      </List>
      <Problem>{problem}</Problem>
    </Card>
  )
}
