import { join } from 'node:path'
import PDFDocument from 'pdfkit'
import { type Signature, signaturePath } from '@/core/estimate/signature'
import { inLanguage, type Language } from '@/core/languages'

export interface Sheet {
  /** in which its foot is said; missing: English */
  language?: Language
  firm: string
  revision: number
  on: string
  /** of the firm, PNG: at the head of the first page */
  logo?: Buffer | null
}

/** Room for a logo, beside the title. */
const logoPt = { width: 130, height: 44 } as const

const fonts = join(process.cwd(), 'node_modules/@fontsource/atkinson-hyperlegible-next/files')
const marginPt = 36
const footPt = 44
const margins = { top: marginPt, left: marginPt, right: marginPt, bottom: footPt }

/** Signs that the font lacks, as words. */
const said: readonly [RegExp, string][] = [
  [/ ?→ ?/g, ' to '],
  [/≤ ?/g, 'at most '],
  [/≥ ?/g, 'at least '],
  [/⅛/g, ' 1/8'],
  [/⅝/g, ' 5/8'],
  [/⁄/g, '/'],
]
export const printable = (text: string) => said.reduce((t, [sign, word]) => t.replace(sign, word), text)

export interface PaperColumn<R> {
  head: string
  /** share of the width */
  share: number
  cell: (row: R) => string
  figure?: boolean
}

/** A document of letter pages in the product’s own letters; dated by what is on it: the same document is the same paper. */
export function letterDoc({
  title,
  firm,
  on,
  layout = 'portrait',
}: {
  title: string
  firm: string
  on: string
  layout?: 'portrait' | 'landscape'
}): PDFKit.PDFDocument {
  const doc = new PDFDocument({
    size: 'LETTER',
    layout,
    margins: { ...margins },
    bufferPages: true,
    info: { Title: title, Author: firm, CreationDate: new Date(`${on}T12:00:00Z`) },
  })
  doc.registerFont('body', join(fonts, 'atkinson-hyperlegible-next-latin-400-normal.woff'))
  doc.registerFont('bold', join(fonts, 'atkinson-hyperlegible-next-latin-700-normal.woff'))
  return doc
}

/** What a document comes to once it is ended. */
export function bytesOf(doc: PDFKit.PDFDocument): Promise<Buffer> {
  const parts: Buffer[] = []
  return new Promise((done, failed) => {
    doc.on('data', part => parts.push(part))
    doc.on('end', () => done(Buffer.concat(parts)))
    doc.on('error', failed)
  })
}

/** Pages of a document: titles, paragraphs, tables whose heads come again on each page; a foot on each. */
export class Paper {
  readonly doc: PDFKit.PDFDocument
  private readonly bytes: Promise<Buffer>
  private readonly bareAt = new Set<number>()

  constructor(
    private readonly title: string,
    private readonly sheet: Sheet,
    private readonly layout: 'portrait' | 'landscape' = 'portrait',
  ) {
    this.doc = letterDoc({ title, firm: sheet.firm, on: sheet.on, layout: this.layout })
    this.bytes = bytesOf(this.doc)
    const { logo } = sheet
    if (logo)
      this.doc.image(logo, this.doc.page.width - marginPt - logoPt.width, marginPt, {
        fit: [logoPt.width, logoPt.height],
        align: 'right',
      })
    this.doc.font('bold').fontSize(16)
    this.doc.text(printable(title), marginPt, marginPt, {
      width: this.width - (logo ? logoPt.width + 12 : 0),
    })
    if (logo) this.doc.y = Math.max(this.doc.y, marginPt + logoPt.height)
    this.doc.x = marginPt
    this.doc.moveDown(0.3)
  }

  get width() {
    return this.doc.page.width - 2 * marginPt
  }

  private get bottom() {
    return this.doc.page.height - footPt
  }

  next() {
    this.doc.addPage({ size: 'LETTER', layout: this.layout, margins: { ...margins } })
  }

  /** The page at hand is whole by itself: no foot is put on it. */
  bare() {
    const { start, count } = this.doc.bufferedPageRange()
    this.bareAt.add(start + count - 1)
  }

  heading(text: string) {
    const { doc } = this
    if (doc.y > this.bottom - 60) this.next()
    doc.moveDown(0.6).font('bold').fontSize(11.5).text(printable(text), marginPt)
    doc.moveDown(0.2)
  }

  paragraph(text: string) {
    this.doc.font('body').fontSize(9).text(printable(text), marginPt, this.doc.y, { width: this.width })
    this.doc.moveDown(0.25)
  }

  table<R>(columns: readonly PaperColumn<R>[], rows: readonly R[]) {
    const { doc } = this
    const whole = columns.reduce((sum, c) => sum + c.share, 0)
    const widths = columns.map(c => (c.share / whole) * this.width)
    const line = (cells: readonly string[], bold: boolean) => {
      doc.font(bold ? 'bold' : 'body').fontSize(8)
      const tall =
        Math.max(...cells.map((t, n) => doc.heightOfString(t || ' ', { width: (widths[n] ?? 0) - 6 }))) + 4
      if (doc.y + tall > this.bottom) {
        this.next()
        if (!bold) line(heads, true)
        doc.font(bold ? 'bold' : 'body').fontSize(8)
      }
      const top = doc.y
      let x = marginPt
      cells.forEach((text, n) => {
        const width = widths[n] ?? 0
        doc.text(text, x + 2, top + 2, {
          width: width - 6,
          align: columns[n]?.figure ? 'right' : 'left',
        })
        x += width
      })
      doc
        .moveTo(marginPt, top + tall)
        .lineTo(marginPt + this.width, top + tall)
        .lineWidth(bold ? 1 : 0.3)
        .strokeColor(bold ? '#111111' : '#999999')
        .stroke()
      doc.x = marginPt
      doc.y = top + tall
    }
    const heads = columns.map(c => c.head)
    line(heads, true)
    for (const row of rows)
      line(
        columns.map(c => printable(c.cell(row))),
        false,
      )
  }

  /** The foot of every page, and the bytes. */
  end(): Promise<Buffer> {
    const { doc, sheet } = this
    const say = inLanguage(sheet.language ?? 'en')
    const { start, count } = doc.bufferedPageRange()
    for (let n = start; n < start + count; n++) {
      if (this.bareAt.has(n)) continue
      doc.switchToPage(n)
      const y = doc.page.height - footPt + 8
      // a foot lies below the margin, where text would begin a new page
      doc.page.margins.bottom = 0
      doc
        .font('body')
        .fontSize(7)
        .fillColor('#444444')
        .text(
          printable(
            say('offer.printed.foot', {
              firm: sheet.firm,
              title: this.title,
              revision: String(sheet.revision),
              on: sheet.on,
              n: String(n + 1),
              of: String(count),
            }),
          ),
          marginPt,
          y,
          { width: this.width, lineBreak: false },
        )
        .text(printable(say('offer.defers')), marginPt, y + 10, { width: this.width, height: 18 })
    }
    doc.end()
    return this.bytes
  }
}

const field = { width: 180, height: 60 }

/** A drawn name, or that a typed one stands for it. */
export function drawnName(
  paper: Paper,
  { name, signature, typed }: { name: string; signature: Signature; typed?: true | undefined },
) {
  if (typed) return paper.paragraph('Signed with the typed name.')
  const { doc } = paper
  if (doc.y > doc.page.height - 140) paper.next()
  const top = doc.y + 4
  doc.save()
  doc.translate(marginPt, top).scale(field.width / 1000)
  doc.path(signaturePath(signature)).lineWidth(8).lineCap('round').strokeColor('#111111').stroke()
  doc.restore()
  doc.y = top + field.height
  doc.font('body').fontSize(8).text(printable(name), marginPt, doc.y)
}
