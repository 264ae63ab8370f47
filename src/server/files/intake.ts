import { filetypeinfo } from 'magic-bytes.js'
import sharp from 'sharp'
import { fail, fault, type Outcome } from '@/core/outcome'

/** A photograph as it is kept: re-encoded, without metadata or location, with a thumbnail. */
export interface Encoded {
  picture: Buffer
  thumbnail: Buffer
  width: number
  height: number
}

export const largestUpload = 20_000_000
export const tooLargeUpload =
  'This file is larger than 20 MB. Take the photograph anew, or send a smaller copy of it.'
/** A picture this large is no photograph of a phone; unpacked it would fill the memory. */
const mostPixels = 80_000_000
/** Nor is one with a side this long: a strip of a million by one is made to be unpacked. */
const longestSideRead = 20_000
const longestSide = 2400
const thumbnailSide = 320

const read = ['jpg', 'png', 'webp', 'gif', 'tif', 'tiff']
/** What people send instead, by what the bytes say, and what to do about it. */
const instead: readonly (readonly [type: string, sentence: string])[] = [
  [
    'heif',
    'This is a HEIC photograph, which only some phones can show. On the phone choose “most compatible” under the camera’s formats, or send a screenshot of it.',
  ],
  [
    'heic',
    'This is a HEIC photograph: choose “most compatible” under the camera’s formats, or send a screenshot of it.',
  ],
  ['pdf', 'This is a PDF, whatever its name says. Send a photograph or a screenshot of the page.'],
  ['mp4', 'This is a film. Send a photograph.'],
  ['mov', 'This is a film. Send a photograph.'],
  ['zip', 'This is an archive or a document. Unpack it, and send the photographs one by one.'],
  ['xml', 'This is a text file, not a photograph. The utility’s file has a place of its own.'],
]

/**
 * Judges an upload by its bytes, never by its name, and re-encodes it as JPEG: turned upright, at most 2,400 pixels on
 * its longer side, without metadata or location. A fault on `$` says what the file is and what to send instead.
 */
export async function takeIn(bytes: Uint8Array): Promise<Outcome<Encoded>> {
  const no = (message: string) => fail(fault('$', message))
  if (!bytes.length) return no('The file is empty. Take the photograph anew.')
  const types = filetypeinfo([...bytes.subarray(0, 4096)]).map(t => t.typename)
  const other = instead.find(([type]) => types.includes(type))
  if (other && !types.some(t => read.includes(t))) return no(other[1])
  if (!types.some(t => read.includes(t)))
    return no('This is no photograph that can be read. Send a JPEG, PNG or WebP picture.')
  try {
    const { width: w, height: h } = await sharp(bytes, { limitInputPixels: false }).metadata()
    if (w > longestSideRead || h > longestSideRead)
      return no(
        `This picture is ${w.toLocaleString('en-US')} × ${h.toLocaleString('en-US')} pixels, which no camera takes: it is not opened. Send a photograph as the phone made it.`,
      )
    const open = () =>
      sharp(bytes, { limitInputPixels: mostPixels, failOn: 'error', animated: false })
        .timeout({ seconds: 15 })
        .rotate()
    const picture = await open()
      .resize({ width: longestSide, height: longestSide, fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#ffffff' })
      .jpeg({ quality: 82, mozjpeg: true })
      .toBuffer({ resolveWithObject: true })
    const thumbnail = await sharp(picture.data)
      .resize({ width: thumbnailSide, height: thumbnailSide, fit: 'inside' })
      .jpeg({ quality: 74, mozjpeg: true })
      .toBuffer()
    const { width, height } = picture.info
    return { ok: true, value: { picture: picture.data, thumbnail, width, height } }
  } catch (error) {
    const why = error instanceof Error ? error.message : ''
    if (/pixel limit|exceeds/i.test(why))
      return no(
        'This picture has more than 80 million pixels, which no phone takes: it is not opened. Send a photograph as the phone made it.',
      )
    return no('The picture is damaged or cut short. Send it again, or take it anew.')
  }
}
