import type { Metadata } from 'next'
import { redirect } from 'next/navigation'
import * as z from 'zod'
import { refusal, rights } from '@/core/firm/roles'
import { forPage } from '@/server/http/handle'
import { pageSignedIn } from '@/server/people/actor'
import { RefusedScreen } from '@/ui/people/RefusedScreen'

export const metadata: Metadata = { title: 'Not for your role' }

/** Why a page is not shown to somebody, and who could open it. */
export default async function RefusedPage({ searchParams }: { searchParams: Promise<{ right?: string }> }) {
  const right = z
    .enum(rights)
    .catch('read')
    .parse((await searchParams).right)
  const acting = await forPage(async () => (await pageSignedIn())?.acting ?? null)
  if (!acting) redirect('/firms')
  return <RefusedScreen person={acting.person} why={refusal(acting.role, right)} />
}
