import { NextResponse } from 'next/server'
import { readPhoto } from '@/server/files/repository'
import { handle, refuse } from '@/server/http/handle'
import { linkOf } from '../../../params'

interface Params {
  params: Promise<{ token: string; photoId: string }>
}

/** The thumbnail of a photograph that answers one of this job's requests. */
export const GET = handle(async (_request, { params }: Params) => {
  const { customer, job } = await linkOf(params)
  const { photoId } = await params
  const mine = job.photos.some(p => p.id === photoId && p.request !== undefined)
  const bytes = mine ? await readPhoto(customer, photoId, 'thumbnail') : null
  if (!bytes) return refuse(404, 'This photograph is not kept here.')
  return new NextResponse(new Uint8Array(bytes), {
    headers: { 'content-type': 'image/jpeg' },
  })
})
