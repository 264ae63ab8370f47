import type { Metadata } from 'next'
import { forPage } from '@/server/http/handle'
import { listTypical } from '@/server/loads/library'
import { pageActor } from '@/server/people/actor'
import { LibraryScreen } from '@/ui/library/LibraryScreen'
import { QueryRoot } from '@/ui/query'

export const metadata: Metadata = { title: 'Load library' }

export default async function LoadLibraryPage() {
  const { actor, firms } = await forPage(async () => {
    const actor = await pageActor()
    return { actor, firms: await listTypical(actor) }
  })
  return (
    <QueryRoot>
      <LibraryScreen person={actor.person} firms={firms} />
    </QueryRoot>
  )
}
