import { NextResponse } from 'next/server'
import * as z from 'zod'
import { readPhoto } from '@/server/files/repository'
import { handle, refuse } from '@/server/http/handle'
import { currentActor } from '@/server/people/actor'

interface Params {
  params: Promise<{ photoId: string }>
}

/** A photograph of the firm; `?size=thumbnail` for the small one. */
export const GET = handle(async (request, { params }: Params) => {
  const { photoId } = await params
  const small = new URL(request.url).searchParams.get('size') === 'thumbnail'
  const bytes = z.uuid().safeParse(photoId).success
    ? await readPhoto(await currentActor(), photoId, small ? 'thumbnail' : 'picture')
    : null
  if (!bytes) return refuse(404, 'This photograph is not kept here.')
  return new NextResponse(new Uint8Array(bytes), {
    headers: { 'content-type': 'image/jpeg' },
  })
})
