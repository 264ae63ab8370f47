'use client'
import { Button, List, ListItem, ListItemButton, ListItemText } from '@mui/material'
import { useState } from 'react'
import { type Role, roleWords } from '@/core/firm/roles'
import { call, upload } from '../api'
import { FileButton } from '../common/FileButton'
import { Problem } from '../common/Problem'
import { Column, Quiet, Row } from '../common/pieces'
import { signOut } from '../common/sign-out'
import { LineField } from '../form/inputs'
import { EntryPage, PlainForm, sent } from './entry'

interface Props {
  name: string
  email: string
  firms: { firmId: string; firm: string; role: string }[]
  inviting: { firm: string; role: Role; at: string }[]
  /** that are to go, and can be brought back */
  deleted: { firmId: string; firm: string; deletedAt: string }[]
}

const work = () => window.location.assign('/jobs')

/** The firms of who has signed in: work in one, see who invites, open one. */
export function FirmsScreen({ name, email, firms, inviting, deleted }: Props) {
  const [problem, setProblem] = useState<string | null>(null)
  /** the share of an archive that has gone out */
  const [bringing, setBringing] = useState<number | null>(null)
  const choose = async (firmId: string) => {
    const reply = await call('/api/session', 'POST', { do: 'work in', firmId })
    if (reply.ok) work()
    else setProblem(reply.message)
  }
  const back = async (firmId: string) => {
    const reply = await call('/api/firms/back', 'POST', { firmId })
    if (reply.ok) await choose(firmId)
    else setProblem(reply.message)
  }
  const bringIn = async (file: File) => {
    setProblem(null)
    setBringing(0)
    const reply = await upload('/api/firms/import', file, setBringing)
    setBringing(null)
    if (reply.ok) return work()
    setProblem(reply.faults[0] ? `The archive: ${reply.faults[0].message}` : reply.message)
  }
  const leave = async () => setProblem(await signOut())
  return (
    <EntryPage
      title={firms.length ? 'Your firms' : 'Welcome'}
      ways={
        <>
          <Button href="/account">Your account</Button>
          <Button onClick={leave}>Sign out</Button>
        </>
      }
    >
      {firms.length > 0 && (
        <List aria-label="Your firms" disablePadding>
          {firms.map(f => (
            <ListItem key={f.firmId} disablePadding divider>
              <ListItemButton onClick={() => choose(f.firmId)}>
                <ListItemText primary={f.firm} secondary={f.role} sx={{ overflowWrap: 'anywhere' }} />
              </ListItemButton>
            </ListItem>
          ))}
        </List>
      )}
      <Problem>{problem}</Problem>
      {deleted.map(d => (
        <Row key={d.firmId}>
          <Quiet>
            {d.firm} was deleted {d.deletedAt.slice(0, 10)}.
          </Quiet>
          <Button size="small" variant="outlined" onClick={() => back(d.firmId)}>
            Bring {d.firm} back
          </Button>
        </Row>
      ))}
      {inviting.map(i => (
        <Problem key={i.firm} severity="info">
          {i.firm} has invited you as {roleWords[i.role].name.toLowerCase()}: open the letter that was sent to{' '}
          {email}.
        </Problem>
      ))}
      <Column component="section" aria-label="Open a firm">
        <h2>Open a firm</h2>
        <Quiet>You will be its owner, and can invite the others.</Quiet>
        <PlainForm
          label="Open a firm"
          values={{ firm: '', label: name, zone: Intl.DateTimeFormat().resolvedOptions().timeZone }}
          save="Open the firm"
          onSend={values => sent('/api/firms', values, work)}
        >
          <LineField name="firm" label="Name of the firm" most={80} autoComplete="organization" />
          <LineField name="label" label="Your name in it" most={60} />
          <LineField
            name="zone"
            label="Time zone"
            most={60}
            help="its days are counted in it, such as America/New_York"
          />
        </PlainForm>
        <FileButton
          what="Archive of a firm"
          accept=".zip,application/zip"
          loading={bringing !== null}
          onFiles={([file]) => bringIn(file)}
        >
          Bring a firm in from its archive
        </FileButton>
      </Column>
    </EntryPage>
  )
}
