'use client'
import { Button, IconButton, Menu, MenuItem } from '@mui/material'
import { EllipsisVertical } from 'lucide-react'
import { useState } from 'react'
import { may, type Role, rights, rightWords, roleRights, roles, roleWords } from '@/core/firm/roles'
import { call } from '../api'
import { DataTable } from '../common/DataTable'
import { Popup } from '../common/Popup'
import { Problem } from '../common/Problem'
import { Card, Quiet, Row, Screen } from '../common/pieces'
import { leaveFor } from '../common/sign-out'
import { type PersonChoice, TopBar } from '../common/TopBar'
import { FormDialog } from '../form/Form'
import { ChoiceField, LineField } from '../form/inputs'
import { useSheet } from '../form/useSheet'

interface PersonListed {
  id: string
  label: string
  role: Role
  email: string | null
  joinedAt: string
  leftAt: string | null
  self: boolean
}
interface Invitation {
  id: string
  email: string
  label: string
  role: Role
  by: string
  expiresAt: string
}
interface Lists {
  people: PersonListed[]
  invitations: Invitation[]
}
interface Props extends Lists {
  person: PersonChoice
}

const roleOptions = roles.map(r => ({ value: r, label: `${roleWords[r].name}: ${roleWords[r].about}` }))
type Asked = { do: 'invite' } | { do: 'change' | 'remove'; who: PersonListed } | null

/** Who works in the firm, as what; who is invited; what each role may do. */
export function PeopleScreen({ person, ...given }: Props) {
  const [lists, setLists] = useState<Lists>(given)
  const [asked, setAsked] = useState<Asked>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const leads = may(person.role, 'people')
  const close = () => setAsked(null)
  const send = async (path: string, body: object) => {
    setProblem(null)
    const reply = await call<Lists>(path, 'POST', body)
    if (!reply.ok) return reply.faults.length ? reply.faults : reply.message
    setLists(reply.data)
    return null
  }
  const leave = async () => {
    const reply = await call('/api/leave', 'POST', {})
    if (reply.ok) await leaveFor('/firms')
    else setProblem(reply.faults[0] ? `Your role ${reply.faults[0].message}.` : reply.message)
  }
  const here = lists.people.filter(p => p.leftAt === null)
  const gone = lists.people.filter(p => p.leftAt !== null)
  return (
    <>
      <TopBar person={person} />
      <Screen
        title="People"
        lead={`${here.length} at ${person.firm}`}
        tools={
          leads && (
            <Button variant="contained" onClick={() => setAsked({ do: 'invite' })}>
              Invite somebody
            </Button>
          )
        }
      >
        <Problem>{problem}</Problem>
        <DataTable
          label="People"
          rows={here}
          idOf={p => p.id}
          stacked="labelled"
          columns={[
            { head: 'Name', names: true, cell: p => (p.self ? `${p.label} (you)` : p.label) },
            { head: 'Role', cell: p => roleWords[p.role].name },
            leads && { head: 'E-mail address', cell: p => p.email ?? 'has no login' },
            { head: 'Since', cell: p => p.joinedAt.slice(0, 10) },
            {
              head: '',
              cell: p =>
                leads || p.self ? (
                  <PersonActions
                    who={p}
                    leads={leads}
                    onAsk={what => (what === 'leave' ? void leave() : setAsked({ do: what, who: p }))}
                  />
                ) : null,
            },
          ]}
        />
        {lists.invitations.length > 0 && (
          <Card title="Invited">
            <DataTable
              label="Invited"
              rows={lists.invitations}
              idOf={i => i.id}
              stacked="labelled"
              columns={[
                { head: 'E-mail address', names: true, cell: i => i.email },
                { head: 'As', cell: i => `${i.label}, ${roleWords[i.role].name.toLowerCase()}` },
                { head: 'By', cell: i => i.by },
                { head: 'Until', cell: i => i.expiresAt.slice(0, 10) },
                {
                  head: '',
                  cell: i => (
                    <Button
                      size="small"
                      aria-label={`Withdraw the invitation of ${i.email}`}
                      onClick={async () => {
                        const said = await send(`/api/people/invitations/${i.id}`, {})
                        if (said) setProblem(String(said))
                      }}
                    >
                      Withdraw
                    </Button>
                  ),
                },
              ]}
            />
          </Card>
        )}
        <Card title="What each role may do">
          <DataTable
            label="What each role may do"
            rows={rights}
            idOf={r => r}
            stacked="labelled"
            columns={[
              { head: 'To …', names: true, cell: r => rightWords[r] },
              ...roles.map(role => ({
                head: roleWords[role].name,
                cell: (right: (typeof rights)[number]) => (roleRights[role].includes(right) ? 'yes' : '–'),
              })),
              { head: '', cell: () => null },
            ]}
          />
        </Card>
        {gone.length > 0 && (
          <Quiet>
            Left: {gone.map(p => `${p.label} (${p.leftAt?.slice(0, 10)})`).join(', ')}. What they did stays in
            the record.
          </Quiet>
        )}
        {asked?.do === 'invite' && (
          <InviteDialog onSend={body => send('/api/people', body)} onClose={close} />
        )}
        {asked?.do === 'change' && (
          <ChangeDialog
            who={asked.who}
            onSend={body => send(`/api/people/${asked.who.id}`, { do: 'change', ...body })}
            onClose={close}
          />
        )}
        {asked?.do === 'remove' && (
          <RemoveDialog
            who={asked.who}
            onSend={() => send(`/api/people/${asked.who.id}`, { do: 'remove' })}
            onClose={close}
          />
        )}
      </Screen>
    </>
  )
}

interface ActionsProps {
  who: PersonListed
  leads: boolean
  onAsk: (what: 'change' | 'remove' | 'leave') => void
}

function PersonActions({ who, leads, onAsk }: ActionsProps) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null)
  const ask = (what: 'change' | 'remove' | 'leave') => {
    setAnchor(null)
    onAsk(what)
  }
  return (
    <>
      <IconButton
        aria-label={`What can be done about ${who.label}`}
        aria-haspopup="menu"
        onClick={e => setAnchor(e.currentTarget)}
      >
        <EllipsisVertical size={18} aria-hidden />
      </IconButton>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        {leads && <MenuItem onClick={() => ask('change')}>Another role or name</MenuItem>}
        {leads && !who.self && <MenuItem onClick={() => ask('remove')}>Take out of the firm</MenuItem>}
        {who.self && <MenuItem onClick={() => ask('leave')}>Leave the firm</MenuItem>}
      </Menu>
    </>
  )
}

type Send = (body: object) => ReturnType<Parameters<typeof useSheet>[0]['save']>

function InviteDialog({ onSend, onClose }: { onSend: Send; onClose: () => void }) {
  const sheet = useSheet({
    values: { email: '', label: '', role: 'technician' },
    read: value => ({ ok: true, value }),
    save: onSend,
    done: onClose,
  })
  return (
    <FormDialog
      sheet={sheet}
      title="Invite somebody"
      save="Send the invitation"
      onClose={onClose}
      maxWidth="sm"
    >
      <LineField name="email" label="E-mail address" type="email" most={254} autoFocus />
      <LineField
        name="label"
        label="Name"
        help="as the firm calls them; it stands beside what they do"
        most={60}
      />
      <ChoiceField name="role" label="Role" options={roleOptions} />
      <Quiet>A letter brings them here. It works for a week, once, and for this address alone.</Quiet>
    </FormDialog>
  )
}

function ChangeDialog({ who, onSend, onClose }: { who: PersonListed; onSend: Send; onClose: () => void }) {
  const sheet = useSheet({
    values: { label: who.label, role: who.role as string },
    read: value => ({ ok: true, value }),
    save: onSend,
    done: onClose,
  })
  return (
    <FormDialog sheet={sheet} title={who.label} save="Change" onClose={onClose} maxWidth="sm">
      <LineField name="label" label="Name" most={60} />
      <ChoiceField name="role" label="Role" options={roleOptions} />
    </FormDialog>
  )
}

function RemoveDialog({ who, onSend, onClose }: { who: PersonListed; onSend: Send; onClose: () => void }) {
  const [problem, setProblem] = useState<string | null>(null)
  const remove = async () => {
    const said = await onSend({})
    if (!said) return onClose()
    setProblem(typeof said === 'string' ? said : `Their role ${said[0]?.message}.`)
  }
  return (
    <Popup
      title={`Take ${who.label} out of the firm`}
      onClose={onClose}
      send={
        <Button variant="contained" color="error" onClick={remove}>
          Take out
        </Button>
      }
    >
      <p>They come in no more from now on. What they did stays, under their name.</p>
      <Row>
        <Problem>{problem}</Problem>
      </Row>
    </Popup>
  )
}
