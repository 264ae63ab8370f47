import { filetypeinfo } from 'magic-bytes.js'
import { fail, fault, type Outcome, ok } from '@/core/outcome'

const wanted = 'Send the file of use as it comes from the utility’s site: XML (Green Button) or CSV.'

/** Text of two bytes a character: by its mark, or by every second byte being empty. */
function isUtf16(bytes: Uint8Array): boolean {
  const [a, b] = bytes
  if ((a === 0xff && b === 0xfe) || (a === 0xfe && b === 0xff)) return true
  const head = bytes.subarray(0, 400)
  const empty = (odd: number) => head.filter((byte, n) => n % 2 === odd && byte === 0).length
  return (
    head.length > 8 && Math.max(empty(0), empty(1)) > head.length * 0.4 && Math.min(empty(0), empty(1)) === 0
  )
}

/** Whether bytes are a utility's file, by what they hold: XML or a table of text. A fault says what they are instead. */
export function kindOfFile(bytes: Uint8Array): Outcome<'xml' | 'csv'> {
  const no = (message: string) => fail(fault('$', `${message} ${wanted}`))
  if (!bytes.length) return no('The file is empty.')
  const head = new TextDecoder('utf-8').decode(bytes.subarray(0, 4000)).replace(/^\uFEFF/, '')
  const type = filetypeinfo([...bytes.subarray(0, 4096)])[0]?.typename
  if (isUtf16(bytes))
    return no('This is text in UTF-16: open it in a text editor and save it as UTF-8, then send it again.')
  if (type === 'zip') return no('This is an archive: unpack it first.')
  if (type === 'pdf') return no('This is a PDF: a bill shows months, not hours.')
  if (head.includes('\0') || head.includes('\uFFFD'))
    return no(type ? `This is a ${type.toUpperCase()} file.` : 'This is no text file.')
  if (/^\s*<!doctype html|^\s*<html/i.test(head))
    return no('This is a web page that was saved, not the data behind it.')
  if (/^\s*<\?xml|^\s*<(\w+:)?(feed|entry|UsagePoint|IntervalBlock)\b/i.test(head)) return ok('xml')
  if (/\d/.test(head) && /[,;\t]/.test(head) && /[\r\n]/.test(head)) return ok('csv')
  return no('It holds no table of figures.')
}
