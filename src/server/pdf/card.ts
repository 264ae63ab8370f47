import type { Card } from '@/core/card/card'
import type { Drawing, DrawnPlace } from '@/core/card/drawing'
import { cardIn, type SaidCard, type SaidLine } from '@/core/card/words'
import type { CardFoot } from '@/core/formats/card-html'
import { inLanguage, type Language } from '@/core/languages'
import { bytesOf, letterDoc, printable } from './paper'

/** Where the same stands as a page, as the squares of its code; rows of dark and light. */
export type Squares = readonly (readonly boolean[])[]

const margin = 30
const gap = 14
const largest = 15
const smallest = 4.5
/** More than these are not put below each other. */
const mostBelow = 9

interface Box {
  x: number
  y: number
  width: number
}

/** One page, in the largest letters by which all of it fits. */
export function drawCard(
  doc: PDFKit.PDFDocument,
  card: Card,
  language: Language,
  foot: CardFoot,
  code?: Squares,
) {
  const said = cardIn(language, card)
  const { width, height } = doc.page
  doc.page.margins.bottom = 0
  const inner = width - 2 * margin
  const head = drawHead(doc, said, inner, code)
  const footTop = height - margin - 24
  const half = (inner - gap) / 2
  const left = { x: margin, width: half }
  const right = { x: margin + half + gap, width: half }
  const measure = { x: 0, y: 0, width: half }
  const room = footTop - head - 10
  const boards = card.drawings.reduce((sum, d) => sum + boardRows(d) + 2, 0)
  for (let size = largest; ; size -= 0.5) {
    const to = drawWay(doc, said.to, measure, size, true)
    const back = drawWay(doc, said.back, measure, size, true)
    const sections = drawSections(doc, said, measure, size, true)
    const rowTall = Math.min(size + 4, (room - back) / Math.max(1, boards))
    const fits = to + sections <= room && (boards ? rowTall >= leastRow : back <= room)
    if (!fits && size > smallest) continue
    const top = head + 2
    drawWay(doc, said.to, { ...left, y: top }, size)
    drawSections(doc, said, { ...left, y: top + to + 8 }, size)
    drawWay(doc, said.back, { ...right, y: top }, size)
    doc
      .moveTo(right.x - gap / 2, top)
      .lineTo(right.x - gap / 2, footTop - 8)
      .lineWidth(0.5)
      .strokeColor('#777777')
      .stroke()
    let y = top + back + 8
    for (const d of card.drawings) y = drawBoard(doc, d, language, { ...right, y }, Math.max(4, rowTall))
    drawFoot(doc, said, foot, footTop, inner)
    return
  }
}

const leastRow = 7.5

function drawHead(doc: PDFKit.PDFDocument, said: SaidCard, inner: number, code?: Squares): number {
  const codeSide = code ? 62 : 0
  doc.fillColor('#111111').font('bold').fontSize(26)
  const width = inner - codeSide - gap
  doc.text(said.heading, margin, margin - 4, { width })
  doc.font('body').fontSize(10)
  doc.text(printable([said.title, said.place].filter(Boolean).join(', ')), margin, doc.y, { width })
  if (code) drawCode(doc, code, { x: margin + inner - codeSide, y: margin - 6, width: codeSide })
  if (said.wrong.length) {
    doc.font('bold').fontSize(11).fillColor('#8a1f16')
    doc.text(
      printable([inLanguage(said.language)('card.wrong'), ...said.wrong].join(' ')),
      margin,
      doc.y + 4,
      {
        width,
      },
    )
    doc.fillColor('#111111')
  }
  return Math.max(doc.y, margin + codeSide - 6) + 6
}

/** Draws, or only measures, one direction; its height. */
function drawWay(
  doc: PDFKit.PDFDocument,
  { head, lines }: SaidCard['to'],
  { x, y, width }: Box,
  size: number,
  measured = false,
): number {
  let at = y
  const put = (text: string, font: 'bold' | 'body', points: number, left: number) => {
    doc.font(font).fontSize(points)
    const options = { width: width - left, lineGap: 0.5 }
    const tall = doc.heightOfString(printable(text), options)
    if (!measured) doc.fillColor('#111111').text(printable(text), x + left, at, options)
    at += tall
  }
  put(head, 'bold', size * 1.3, 0)
  at += size * 0.2
  lines.forEach((line: SaidLine, n) => {
    const start = at
    put(line.text, 'body', size, size * 1.5)
    if (!measured)
      doc
        .font('bold')
        .fontSize(size)
        .text(`${n + 1}`, x, start, { width: size * 1.4, lineBreak: false })
    // many of them stand in a row
    if (line.each.length > mostBelow) put(line.each.join('  ·  '), 'bold', size * 0.9, size * 1.5)
    else for (const each of line.each) put(`• ${each}`, 'bold', size, size * 1.9)
    at += size * 0.3
  })
  return at - y
}

function drawSections(
  doc: PDFKit.PDFDocument,
  { sections }: SaidCard,
  { x, y, width }: Box,
  size: number,
  measured = false,
): number {
  const points = size * 0.85
  let at = y
  for (const { head, lines } of sections)
    for (const [n, text] of [head, ...lines].entries()) {
      doc.font(n ? 'body' : 'bold').fontSize(points)
      const tall = doc.heightOfString(printable(text), { width })
      if (!measured) doc.fillColor('#111111').text(printable(text), x, at, { width })
      at += tall + (n === lines.length ? points * 0.4 : 0)
    }
  return at - y
}

const boardRows = (d: Drawing) =>
  d.kind === 'switch' ? d.places.length : d.rows.length + (d.main === null ? 0 : 1)

/** The panel as it stands on the source: dark what is on, crossed what is locked. Returns where it ends. */
function drawBoard(
  doc: PDFKit.PDFDocument,
  drawing: Drawing,
  language: Language,
  { x, y, width }: Box,
  tall: number,
): number {
  const say = inLanguage(language)
  const size = Math.min(10, tall - 1.5)
  let at = y
  doc
    .font('bold')
    .fontSize(Math.min(11, size * 1.15))
    .fillColor('#111111')
  const title =
    drawing.kind === 'switch' ? say('card.drawing.switch') : say('card.drawing.head', { panel: drawing.name })
  doc.text(printable(title), x, at, { width, height: tall * 1.2, lineBreak: false, ellipsis: true })
  at += tall * 1.2
  const cell = (places: readonly DrawnPlace[], left: number, wide: number) => {
    const [first] = places
    const stands =
      places.find(p => p.stands === 'locked')?.stands ?? places.find(p => p.stands === 'on')?.stands
    doc.lineWidth(0.5).strokeColor('#555555')
    if (stands === 'on') doc.rect(left, at, wide, tall).fillAndStroke('#1b3a44', '#555555')
    else doc.rect(left, at, wide, tall).stroke()
    if (stands === 'locked')
      doc
        .lineWidth(1.4)
        .moveTo(left, at)
        .lineTo(left + 7, at + tall)
        .moveTo(left, at + tall)
        .lineTo(left + 7, at)
        .stroke()
    if (!first) return
    const text = places.map(p => `${p.name} ${p.continued ? '·' : p.label}`).join(' / ')
    doc
      .font(stands ? 'bold' : 'body')
      .fontSize(size)
      .fillColor(stands === 'on' ? '#ffffff' : '#111111')
      .text(printable(text), left + (stands === 'locked' ? 9 : 3), at + (tall - size) / 2 - 1, {
        width: wide - 12,
        height: tall,
        lineBreak: false,
        ellipsis: true,
      })
  }
  if (drawing.kind === 'switch')
    for (const p of drawing.places) {
      cell([p], x, width)
      at += tall
    }
  else {
    if (drawing.main !== null) {
      cell(
        [
          {
            name: say('card.drawing.main'),
            label: drawing.main.toUpperCase(),
            stands: drawing.main,
            continued: false,
          },
        ],
        x,
        width,
      )
      at += tall
    }
    for (const [a, b] of drawing.rows) {
      cell(a, x, width / 2)
      cell(b, x + width / 2, width / 2)
      at += tall
    }
  }
  return at + tall * 0.8
}

function drawCode(doc: PDFKit.PDFDocument, code: Squares, { x, y, width }: Box) {
  const side = width / code.length
  doc.fillColor('#000000')
  for (const [r, row] of code.entries())
    for (const [c, dark] of row.entries())
      if (dark) doc.rect(x + c * side, y + r * side, side + 0.05, side + 0.05).fill()
}

function drawFoot(doc: PDFKit.PDFDocument, said: SaidCard, foot: CardFoot, y: number, inner: number) {
  const say = inLanguage(said.language)
  doc.fillColor('#111111').font('bold').fontSize(12)
  doc.text(printable(said.call(foot.firm)), margin, y, { width: inner, lineBreak: false })
  doc.font('body').fontSize(7)
  doc.text(
    printable(
      `${said.defers} ${say('card.made', { title: said.title, revision: String(foot.revision), day: foot.day })}`,
    ),
    margin,
    y + 15,
    { width: inner, height: 10, lineBreak: false, ellipsis: true },
  )
}

/** The card on one page of paper. */
export function cardPdf(card: Card, language: Language, foot: CardFoot, code?: Squares): Promise<Buffer> {
  const doc = letterDoc({
    title: `${card.title}: ${cardIn(language, card).heading}`,
    firm: foot.firm,
    on: foot.day,
  })
  const bytes = bytesOf(doc)
  drawCard(doc, card, language, foot, code)
  doc.end()
  return bytes
}
