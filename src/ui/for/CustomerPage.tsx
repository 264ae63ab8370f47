'use client'
import { Alert } from '@mui/material'
import { useState } from 'react'
import type { AskedOfCustomer } from '@/core/assess/sent'
import { plural } from '@/core/units/format'
import { Column, Quiet } from '../common/pieces'
import { AskedCard } from './AskedCard'
import { ForCustomer } from './LinkGone'

interface Props {
  token: string
  firm: string
  title: string
  asked: AskedOfCustomer[]
}

/** What the installer needs before the visit, for a phone and someone without any account. */
export function CustomerPage({ token, firm, title, asked: first }: Props) {
  const [asked, setAsked] = useState(first)
  const open = asked.filter(a => a.state === 'open').length
  return (
    <ForCustomer>
      <header>
        <p>{firm} asks for</p>
        <h1 style={{ overflowWrap: 'anywhere' }}>{title}</h1>
        <p aria-live="polite">
          {open
            ? `${plural(open, 'thing')} still needed. Send what you can; skip what you cannot.`
            : 'Everything asked for is here. Thank you.'}
        </p>
      </header>
      <Alert severity="warning" role="note">
        Only open the panel’s door. Leave its cover on, touch nothing inside, and keep away if anything is
        wet, warm or buzzing.
      </Alert>
      <Column component="ol" sx={{ p: 0, listStyle: 'none' }}>
        {asked.map(a => (
          <AskedCard key={a.key} token={token} asked={a} onSent={setAsked} />
        ))}
      </Column>
      <Quiet component="footer">
        Pictures are stored without their place or camera data, and only {firm} sees them. You can come back
        to this page with the same link until it expires.
      </Quiet>
    </ForCustomer>
  )
}
