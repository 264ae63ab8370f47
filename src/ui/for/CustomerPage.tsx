'use client'
import { useState } from 'react'
import type { AskedOfCustomer } from '@/core/ask/sent'
import { plural } from '@/core/units/format'
import { AskedCard } from './AskedCard'
import styles from './CustomerPage.module.css'

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
    <main className={styles.page}>
      <header>
        <p>{firm} asks for</p>
        <h1>{title}</h1>
        <p aria-live="polite">
          {open
            ? `${plural(open, 'thing')} still needed. Send what you can; skip what you cannot.`
            : 'Everything asked for is here. Thank you.'}
        </p>
      </header>
      <p className={styles.caution}>
        Only open the panel’s door. Leave its cover on, touch nothing inside, and keep away if anything is
        wet, warm or buzzing.
      </p>
      <ol className={styles.list}>
        {asked.map(a => (
          <AskedCard key={a.key} token={token} asked={a} onSent={setAsked} />
        ))}
      </ol>
      <footer>
        Pictures are stored without their place or camera data, and only {firm} sees them. You can come back
        to this page with the same link until it expires.
      </footer>
    </main>
  )
}
