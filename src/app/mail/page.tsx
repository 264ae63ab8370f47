import type { Metadata } from 'next'
import { notFound } from 'next/navigation'
import { unbound } from '@/server/db/connection'
import { setting } from '@/server/env'
import { forPage } from '@/server/http/handle'
import { MailScreen } from '@/ui/people/MailScreen'

export const metadata: Metadata = { title: 'Letters of the demo' }

/** What the demo's stand-in of a mail server has taken; nowhere else is there such a page. */
export default async function MailPage() {
  if (setting('SPILLWAY_DEMO') !== 'yes') notFound()
  const rows = await forPage(() =>
    unbound()('login.letter').orderBy('id', 'desc').limit(30).select('id', 'at', 'to', 'subject', 'text'),
  )
  return <MailScreen letters={rows.map(r => ({ ...r, id: String(r.id), at: r.at.toISOString() }))} />
}
