'use client'
import { Alert, Button } from '@mui/material'
import { useState } from 'react'
import type { AskedOfCustomer } from '@/core/assess/sent'
import { type Language, languageKeys, languages } from '@/core/languages'
import { Column, Quiet } from '../common/pieces'
import { AskedCard } from './AskedCard'
import { ForCustomer } from './LinkGone'
import { sayIn } from './say'

interface Props {
  token: string
  firm: string
  title: string
  language: Language
  asked: AskedOfCustomer[]
}

/** What the installer needs before the visit, for a phone and someone without any account. */
export function CustomerPage({ token, firm, title, language, asked: first }: Props) {
  const say = sayIn(language)
  const [asked, setAsked] = useState(first)
  const open = asked.filter(a => a.state === 'open').length
  return (
    <ForCustomer language={language}>
      <header>
        <p>{say('asksFor', { firm })}</p>
        <h1 style={{ overflowWrap: 'anywhere' }}>{title}</h1>
        <p aria-live="polite">{open ? say('still', { n: open }) : say('allHere')}</p>
      </header>
      <Alert severity="warning" role="note">
        {say('danger')}
      </Alert>
      <nav>
        {languageKeys
          .filter(l => l !== language)
          .map(l => (
            <Button key={l} component="a" href={`?language=${l}`} lang={l} hrefLang={l}>
              {languages[l]}
            </Button>
          ))}
      </nav>
      <Column component="ol" sx={{ p: 0, listStyle: 'none' }}>
        {asked.map(a => (
          <AskedCard key={a.key} token={token} language={language} asked={a} onSent={setAsked} />
        ))}
      </Column>
      <Quiet component="footer">{say('kept', { firm })}</Quiet>
    </ForCustomer>
  )
}
