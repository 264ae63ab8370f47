import { openHouse } from '@/server/houses/repository'
import { handle, refuse } from '@/server/http/handle'
import { newestPack, packPaper } from '@/server/packs/repository'

/** The newest pack of a house, for who lives there. */
export const GET = handle(async (_request, { params }: { params: Promise<{ token: string }> }) => {
  const opened = await openHouse((await params).token, new Date())
  if (!opened) return refuse(404, 'This link leads nowhere any more. Ask the installer for a new one.')
  const { customer, jobId } = opened
  const n = await newestPack(customer, jobId)
  const pdf = n === null ? null : await packPaper(customer, jobId, n)
  if (!pdf) return refuse(404, 'There is no pack of this house yet. Ask the installer.')
  return new Response(new Uint8Array(pdf), {
    headers: { 'content-type': 'application/pdf', 'content-disposition': 'inline; filename="hand-over.pdf"' },
  })
})
