import QRCode from 'qrcode'
import { cardOf } from '@/core/card/card'
import { dayIn } from '@/core/day'
import { isLanguage } from '@/core/languages'
import { openHouse } from '@/server/houses/repository'
import { handle, refuse } from '@/server/http/handle'
import { cardPdf } from '@/server/pdf/card'

/** The squares of a code that leads to an address. */
function squaresOf(address: string): boolean[][] {
  const { modules } = QRCode.create(address, { errorCorrectionLevel: 'M' })
  return Array.from({ length: modules.size }, (_, row) =>
    Array.from({ length: modules.size }, (_, column) => modules.get(row, column) === 1),
  )
}

/** The card for the door, with the code that leads to the page of its house. */
export const GET = handle(async (request, { params }: { params: Promise<{ token: string }> }) => {
  const { token } = await params
  const url = new URL(request.url)
  const asked = url.searchParams.get('language')
  const language = isLanguage(asked) ? asked : 'en'
  const opened = await openHouse(token, new Date())
  if (!opened) return refuse(404, 'This link leads nowhere any more. Ask the installer for a new one.')
  const card = cardOf(opened.job)
  if (!card.ok) return refuse(409, `There is no card yet: ${card.faults[0]?.message ?? ''}.`)
  const { firm, revision, customer } = opened
  const address = `${url.protocol}//${request.headers.get('host') ?? url.host}/house/${token}?language=${language}`
  const pdf = await cardPdf(
    card.value,
    language,
    { firm, revision, day: dayIn(customer.zone, new Date()) },
    squaresOf(address),
  )
  return new Response(new Uint8Array(pdf), {
    headers: { 'content-type': 'application/pdf', 'content-disposition': 'inline; filename="card.pdf"' },
  })
})
