import type { Metadata } from 'next'
import { headers } from 'next/headers'
import { notFound } from 'next/navigation'
import { askedOfCustomer } from '@/core/assess/sent'
import { languageOf } from '@/core/languages'
import { forPage } from '@/server/http/handle'
import { openLink } from '@/server/links/repository'
import { CustomerPage } from '@/ui/for/CustomerPage'

export const metadata: Metadata = {
  title: 'What is needed from you',
  robots: { index: false, follow: false },
  referrer: 'no-referrer',
}

interface Params {
  params: Promise<{ token: string }>
  searchParams: Promise<Record<string, string | string[] | undefined>>
}

/** The page behind a customer's link: this job's questions and nothing else. */
export default async function ForCustomer({ params, searchParams }: Params) {
  const language = languageOf((await searchParams).language, (await headers()).get('accept-language'))
  const { token } = await params
  const opened = await forPage(() => openLink(token, new Date()))
  if (!opened) notFound()
  return (
    <CustomerPage
      token={token}
      firm={opened.firm}
      title={opened.job.title}
      language={language}
      asked={askedOfCustomer(opened.job, language)}
    />
  )
}
