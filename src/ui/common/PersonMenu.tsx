import { Button, Divider, ListSubheader, Menu, MenuItem } from '@mui/material'
import Link from 'next/link'
import { useEffect, useState } from 'react'
import { may, type Role, roleWords } from '@/core/firm/roles'
import { plural } from '@/core/units/format'
import { call } from '../api'
import { waitingHere } from './device'
import { Popup } from './Popup'
import { Problem } from './Problem'
import { signOut } from './sign-out'

interface Props {
  person: { label: string; firm: string; role: Role; demo: boolean }
  anchor: HTMLElement
  onClose: () => void
}

interface FirmChoice {
  firmId: string
  firm: string
  chosen: boolean
}

const inWords = ({ changes, photographs }: { changes: number; photographs: number }) =>
  [changes && plural(changes, 'change'), photographs && plural(photographs, 'photograph')]
    .filter(Boolean)
    .join(' and ')

const demoRoles = ['owner', 'designer', 'technician'] as const

/** Who somebody is here, and the way to their account, their firm and out; in the demo another to look around as. */
export function PersonMenu({ person, anchor, onClose }: Props) {
  const [firms, setFirms] = useState<FirmChoice[]>([])
  const [problem, setProblem] = useState<string | null>(null)
  /** what was not sent yet, while it is asked whether to leave all the same */
  const [waits, setWaits] = useState<Awaited<ReturnType<typeof waitingHere>> | null>(null)
  useEffect(() => {
    call<{ firms: FirmChoice[] }>('/api/session', 'GET').then(reply => reply.ok && setFirms(reply.data.firms))
  }, [])
  const go = async (path: string, body: object, to = window.location.href) => {
    const reply = await call(path, 'POST', body)
    // a whole page: what another firm or another role saw is not shown for a moment in this one
    if (reply.ok) window.location.assign(to)
    else setProblem(reply.message)
  }
  const leave = async () => setProblem(await signOut())
  const askToLeave = async () => {
    const found = await waitingHere().catch(() => null)
    if (found?.changes || found?.photographs) setWaits(found)
    else await leave()
  }
  const to = (href: string, words: string) => (
    <MenuItem key={href} component={Link} href={href} prefetch={false} onClick={onClose}>
      {words}
    </MenuItem>
  )
  const others = firms.filter(f => !f.chosen)
  if (waits)
    return (
      <Popup
        title="Not everything was sent"
        close="Stay signed in"
        onClose={onClose}
        actions={<Button onClick={leave}>Sign out</Button>}
      >
        <p>
          Waiting on this device for the connection: {inWords(waits)} of yours. Signed out, nobody sees or
          sends what waits: it goes when you sign in here again and open the job.
        </p>
        <Problem>{problem}</Problem>
      </Popup>
    )
  return (
    <Menu anchorEl={anchor} open onClose={onClose}>
      <ListSubheader>
        {person.label}, {roleWords[person.role].name.toLowerCase()} at {person.firm}
      </ListSubheader>
      {problem && (
        <li>
          <Problem>{problem}</Problem>
        </li>
      )}
      {to('/people', 'People')}
      {to('/firm', 'Firm')}
      {may(person.role, 'people') && to('/record', 'Record')}
      {to('/account', 'Your account')}
      {others.length > 0 && <Divider />}
      {others.map(f => (
        <MenuItem
          key={f.firmId}
          onClick={() => go('/api/session', { do: 'work in', firmId: f.firmId }, '/jobs')}
        >
          Work in {f.firm}
        </MenuItem>
      ))}
      {person.demo && <Divider />}
      {person.demo &&
        demoRoles
          .filter(role => role !== person.role)
          .map(role => (
            <MenuItem key={role} onClick={() => go('/api/auth/demo/enter', { as: role })}>
              Look around as {role}
            </MenuItem>
          ))}
      <Divider />
      <MenuItem onClick={askToLeave}>Sign out</MenuItem>
    </Menu>
  )
}
