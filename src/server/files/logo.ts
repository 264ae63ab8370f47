import { filetypeinfo } from 'magic-bytes.js'
import sharp from 'sharp'

/** A logo as it is kept: at most this wide and high, in pixels. */
const widest = 600
const highest = 200

/**
 * A picture as a firm’s logo: judged by its bytes, drawn anew as PNG without whatever else it carried; null for what is no picture
 * that we read. SVG is none: it may carry scripts.
 */
export async function takeLogo(bytes: Uint8Array): Promise<Buffer | null> {
  const types = filetypeinfo([...bytes.subarray(0, 4096)]).map(t => t.typename)
  if (!types.some(t => ['jpg', 'png', 'webp'].includes(t ?? ''))) return null
  try {
    return await sharp(bytes, { limitInputPixels: 40_000_000, failOn: 'error', animated: false })
      .rotate()
      .resize({ width: widest, height: highest, fit: 'inside', withoutEnlargement: true })
      .png()
      .toBuffer()
  } catch {
    return null
  }
}
