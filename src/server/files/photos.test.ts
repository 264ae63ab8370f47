import { randomUUID } from 'node:crypto'
import { crc32, deflateSync } from 'node:zlib'
import sharp from 'sharp'
import { kindOfFile } from './file-kind'
import { takeIn } from './intake'

const flat = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: '#887766' } })
const why = async (bytes: Uint8Array) => {
  const taken = await takeIn(bytes)
  return taken.ok ? null : taken.faults[0]?.message
}
const box = (brand: string) =>
  Buffer.concat([Buffer.from([0, 0, 0, 24]), Buffer.from(`ftyp${brand}`), Buffer.alloc(64)])

test('a photograph is turned upright, made smaller, and loses its metadata and place', async () => {
  const original = await flat(3000, 4000)
    .withExif({ IFD0: { Make: 'camera' }, IFD3: { GPSLatitude: '51/1 30/1 0/1', GPSLatitudeRef: 'N' } })
    .withMetadata({ orientation: 6 })
    .jpeg()
    .toBuffer()
  expect((await sharp(original).metadata()).exif).toBeDefined()
  const taken = await takeIn(original)
  if (!taken.ok) throw new Error(taken.faults[0]?.message)
  const { picture, thumbnail, width, height } = taken.value
  expect([width, height]).toEqual([2400, 1800])
  const kept = await sharp(picture).metadata()
  expect(kept).toMatchObject({ format: 'jpeg', width: 2400, height: 1800 })
  expect([kept.exif, kept.icc, kept.xmp, kept.iptc]).toEqual([undefined, undefined, undefined, undefined])
  expect((await sharp(thumbnail).metadata()).width).toBe(320)
})

test('PNG and WebP are read and kept as JPEG; a small one is not blown up', async () => {
  for (const bytes of [await flat(40, 30).png().toBuffer(), await flat(40, 30).webp().toBuffer()]) {
    const taken = await takeIn(bytes)
    expect(taken).toMatchObject({ ok: true, value: { width: 40, height: 30 } })
  }
})

test('what is no photograph is named by its bytes, whatever it is called', async () => {
  expect(await why(box('heic'))).toMatch(/HEIC photograph.*most compatible/)
  expect(await why(Buffer.from('%PDF-1.7\n%abc\n'))).toMatch(/is a PDF, whatever its name says/)
  expect(await why(box('mp42'))).toMatch(/is a film/)
  expect(await why(Buffer.from('PK\u0003\u0004 and so on'))).toMatch(/archive or a document/)
  expect(await why(Buffer.from('<?xml version="1.0"?><feed/>'))).toMatch(/text file/)
  expect(await why(Buffer.from('just words'))).toMatch(/no photograph that can be read/)
  expect(await why(new Uint8Array())).toMatch(/empty/)
})

test('a decompression bomb is not opened; a torn picture is told', async () => {
  // a PNG of 20,000 × 20,000 pixels that says so in its header
  const chunk = (name: string, data: Buffer) => {
    const body = Buffer.concat([Buffer.from(name), data])
    const [length, check] = [Buffer.alloc(4), Buffer.alloc(4)]
    length.writeUInt32BE(data.length)
    check.writeUInt32BE(crc32(body))
    return Buffer.concat([length, body, check])
  }
  const header = Buffer.alloc(13)
  header.writeUInt32BE(20_000, 0)
  header.writeUInt32BE(20_000, 4)
  header.set([8, 2, 0, 0, 0], 8)
  const bomb = Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', header),
    chunk('IDAT', deflateSync(Buffer.alloc(1_000_000))),
    chunk('IEND', Buffer.alloc(0)),
  ])
  expect(await why(bomb)).toMatch(/more than 80 million pixels/)
  const whole = await flat(800, 600).jpeg().toBuffer()
  expect(await why(whole.subarray(0, whole.length / 2))).toMatch(/damaged or cut short/)
})

test('a utility’s file is known by what it holds', () => {
  const kind = (text: string | Uint8Array) => {
    const got = kindOfFile(typeof text === 'string' ? Buffer.from(text) : text)
    return got.ok ? got.value : got.faults[0]?.message
  }
  expect(kind('<?xml version="1.0"?>\n<feed xmlns="http://www.w3.org/2005/Atom">')).toBe('xml')
  expect(kind('\uFEFFDate,kWh\r\n2025-01-01 00:00,0.4\r\n')).toBe('csv')
  expect(kind('%PDF-1.4')).toMatch(/a PDF: a bill shows months/)
  expect(kind('PK\u0003\u0004')).toMatch(/unpack it first/)
  expect(kind('<!DOCTYPE html><html>')).toMatch(/web page/)
  expect(kind('hello')).toMatch(/no table of figures/)
  expect(kind(Buffer.from([1, 0, 2, 0, 3]))).toMatch(/no text file|file\. Send/)
  expect(kind(randomUUID())).toMatch(/no table/)
})
