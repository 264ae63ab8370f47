import { Divider, ListSubheader, Menu, MenuItem } from '@mui/material'
import Link from 'next/link'
import { useRouter } from 'next/navigation'
import { useEffect, useState } from 'react'
import { may, type Role, roleWords } from '@/core/firm/roles'
import { call } from '../api'

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

const demoRoles = ['owner', 'designer', 'technician'] as const

/** Who somebody is here, and the way to their account, their firm and out; in the demo another to look around as. */
export function PersonMenu({ person, anchor, onClose }: Props) {
  const router = useRouter()
  const [firms, setFirms] = useState<FirmChoice[]>([])
  useEffect(() => {
    call<{ firms: FirmChoice[] }>('/api/session', 'GET').then(reply => reply.ok && setFirms(reply.data.firms))
  }, [])
  const go = async (path: string, body: object, to?: string) => {
    onClose()
    const reply = await call(path, 'POST', body)
    if (!reply.ok) return
    if (to) router.push(to)
    router.refresh()
  }
  const to = (href: string, words: string) => (
    <MenuItem key={href} component={Link} href={href} prefetch={false} onClick={onClose}>
      {words}
    </MenuItem>
  )
  const others = firms.filter(f => !f.chosen)
  return (
    <Menu anchorEl={anchor} open onClose={onClose}>
      <ListSubheader>
        {person.label}, {roleWords[person.role].name.toLowerCase()} at {person.firm}
      </ListSubheader>
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
      <MenuItem onClick={() => go('/api/auth/sign-out', {}, '/sign-in')}>Sign out</MenuItem>
    </Menu>
  )
}
