import { Button, List, ListItem, ListItemText, TextField } from '@mui/material'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { call } from '../api'
import { Card, Row } from '../common/pieces'
import { told } from '../query'
import { useWorkspace } from '../workspace/store'

interface Link {
  id: string
  createdAt: string
  expiresAt: string | null
  withdrawnAt: string | null
  seenAt: string | null
  by: string
  uploads: number
}

const day = (iso: string) => iso.slice(0, 10)
const standing = (link: Link) =>
  link.withdrawnAt
    ? `withdrawn ${day(link.withdrawnAt)}`
    : link.expiresAt === null
      ? 'valid until it is withdrawn'
      : new Date(link.expiresAt) < new Date()
        ? `expired ${day(link.expiresAt)}`
        : `valid until ${day(link.expiresAt)}`
const isValid = (link: Link) =>
  !link.withdrawnAt && (link.expiresAt === null || new Date(link.expiresAt) > new Date())

/** What a link leads to, in words. */
const kinds = {
  ask: {
    title: 'Link for the customer',
    about:
      'A page without an account that shows only what is asked here. It lasts three weeks, and can be withdrawn at any time.',
    path: 'for',
    sends: true,
    shown: 'The address is shown only now. Send it to the customer; anyone who has it can answer.',
  },
  house: {
    title: 'Page of the house',
    about:
      'For who lives there: the card, how long it lasts tonight, a question, an outage that was lived through. It lasts until it is withdrawn.',
    path: 'house',
    sends: false,
    shown:
      'The address is shown only now. Open it to print the card with its code for the door; anyone who has it can read the card.',
  },
} as const

/** The customer's links of this job: made here, shown once, withdrawn here. */
export function LinkBox({ kind = 'ask' }: { kind?: keyof typeof kinds }) {
  const words = kinds[kind]
  const id = useWorkspace(s => s.id)
  const [address, setAddress] = useState<string | null>(null)
  const [said, setSaid] = useState<string | null>(null)
  const client = useQueryClient()
  const at = `/api/jobs/${id}/links?kind=${kind}`
  const { data, error } = useQuery({ queryKey: [at], queryFn: () => told<{ links: Link[] }>(at) })
  const links = data?.links
  const send = async (what: object) => {
    setSaid(null)
    const answer = await call<{ token?: string; links: Link[] }>(at, 'POST', what)
    if (!answer.ok) return setSaid(answer.message)
    client.setQueryData([at], { links: answer.data.links })
    setAddress(answer.data.token ? `${location.origin}/${words.path}/${answer.data.token}` : null)
  }
  const copy = async () => {
    if (!address) return
    try {
      await navigator.clipboard.writeText(address)
      setSaid('Copied.')
    } catch {
      setSaid('It could not be copied: select the address and copy it.')
    }
  }
  return (
    <Card title={words.title}>
      <p>{words.about}</p>
      {address && (
        <>
          <Row sx={{ flexWrap: 'nowrap' }}>
            <TextField
              value={address}
              label="Address to send"
              onFocus={event => event.target.select()}
              slotProps={{ htmlInput: { readOnly: true } }}
            />
            <Button variant="contained" onClick={() => void copy()}>
              Copy
            </Button>
          </Row>
          {!words.sends && (
            <Button component="a" href={address} target="_blank" rel="noreferrer" variant="outlined">
              Open it
            </Button>
          )}
          <p>{words.shown}</p>
        </>
      )}
      <Row>
        <Button variant="outlined" disabled={!links} onClick={() => void send({ do: 'make' })}>
          {links?.some(isValid) ? 'Make another link' : 'Make a link'}
        </Button>
        <span role="status">{said ?? error?.message}</span>
      </Row>
      {links && links.length > 0 && (
        <List dense disablePadding>
          {links.slice(0, 5).map(link => (
            <ListItem key={link.id} disableGutters divider>
              <ListItemText
                secondary={`made ${day(link.createdAt)} by ${link.by}, ${standing(link)}, ${
                  link.seenAt
                    ? `opened ${day(link.seenAt)}${words.sends ? `, ${link.uploads} sent` : ''}`
                    : 'not opened yet'
                }`}
              />
              {isValid(link) && (
                <Button size="small" onClick={() => void send({ do: 'withdraw', linkId: link.id })}>
                  Withdraw
                </Button>
              )}
            </ListItem>
          ))}
        </List>
      )}
    </Card>
  )
}
