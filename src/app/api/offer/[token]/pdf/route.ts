import { offerPaper } from '@/server/estimates/repository'
import { handle, refuse } from '@/server/http/handle'

/** The paper of an offer, byte for byte as it was sent. */
export const GET = handle(async (_request, { params }: { params: Promise<{ token: string }> }) => {
  const pdf = await offerPaper((await params).token)
  if (!pdf) return refuse(404, 'This link is no estimate. Ask the installer for a new one.')
  return new Response(new Uint8Array(pdf), {
    headers: { 'content-type': 'application/pdf', 'content-disposition': 'inline; filename="estimate.pdf"' },
  })
})
