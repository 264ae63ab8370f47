import { fault } from '@/core/outcome'
import { takeLogo } from '@/server/files/logo'
import { bodyBytes, handle, refuse } from '@/server/http/handle'
import { currentActor } from '@/server/people/actor'
import { keepLogo, logoOf } from '@/server/people/settings'

const mostBytes = 4_000_000

export const GET = handle(async () => {
  const png = await logoOf(await currentActor())
  if (!png) return refuse(404, 'The firm has no logo.')
  return new Response(new Uint8Array(png), {
    headers: { 'content-type': 'image/png', 'cache-control': 'private, no-cache' },
  })
})

/** Keeps a picture as the firm’s logo, drawn anew; nothing sent takes it away. */
export const POST = handle(async request => {
  const actor = await currentActor()
  const bytes = await bodyBytes(request, mostBytes, 'A logo may have 4 MB at most: make it smaller.')
  if (!bytes.length) {
    await keepLogo(actor, null)
    return { logo: false }
  }
  const png = await takeLogo(bytes)
  if (!png)
    return refuse(415, 'This is no picture that can be read.', [
      fault('logo', 'must be a JPEG, PNG or WebP picture'),
    ])
  await keepLogo(actor, png)
  return { logo: true }
})
