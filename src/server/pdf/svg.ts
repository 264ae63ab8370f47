import { SaxesParser } from 'saxes'
import sharp from 'sharp'
import { type Paper, printable } from './paper'

interface Lettering {
  x: number
  y: number
  size: number
  bold: boolean
  middle: boolean
  fill: string
  rim: boolean
  text: string
}

const usualSize = 12
const dotsPerUnit = 2

/** Every text of a drawing of ours, where it stands: shifts of the groups around it counted in. */
function lettering(svg: string): { texts: Lettering[]; width: number; height: number } {
  const parser = new SaxesParser()
  const shifts: [number, number][] = [[0, 0]]
  const texts: Lettering[] = []
  let size: [number, number] = [0, 0]
  let here: Lettering | null = null
  parser.on('opentag', ({ name, attributes: a, isSelfClosing }) => {
    const at = (key: string) => String(a[key] ?? '')
    const [dx, dy] = shifts.at(-1) ?? [0, 0]
    if (name === 'svg') size = [Number(at('width')), Number(at('height'))]
    if (!isSelfClosing) {
      const [, x = '0', y = '0'] = /translate\(([-\d.]+)[ ,]+([-\d.]+)\)/.exec(at('transform')) ?? []
      shifts.push([dx + Number(x), dy + Number(y)])
    }
    if (name !== 'text') return
    here = {
      x: Number(at('x')) + dx,
      y: Number(at('y')) + dy,
      size: Number(at('font-size')) || usualSize,
      bold: at('font-weight') === '700',
      middle: at('text-anchor') === 'middle',
      fill: at('fill') || '#111111',
      rim: at('paint-order') === 'stroke',
      text: '',
    }
  })
  parser.on('text', text => {
    if (here) here.text += text
  })
  parser.on('closetag', ({ name, isSelfClosing }) => {
    if (!isSelfClosing) shifts.pop()
    if (name === 'text' && here) {
      texts.push(here)
      here = null
    }
  })
  parser.write(svg).close()
  return { texts, width: size[0], height: size[1] }
}

/** A drawing as large as the rest of the page holds it: its shapes as a picture, its letters as letters, in the fonts that ship with the product. */
export async function drawSvg({ doc, width: room }: Paper, svg: string): Promise<void> {
  const { texts, width, height } = lettering(svg)
  const shapes = await sharp(Buffer.from(svg.replace(/<text[\s>][\s\S]*?<\/text>/g, '')), {
    density: 72 * dotsPerUnit,
  })
    .flatten({ background: '#ffffff' })
    .png()
    .toBuffer()
  const [left, top] = [36, doc.y + 4]
  const scale = Math.min(room / width, (doc.page.height - top - 60) / height, 1)
  const { bottom } = doc.page.margins
  doc.page.margins.bottom = -height
  doc.image(shapes, left, top, { width: width * scale, height: height * scale })
  doc.save().translate(left, top).scale(scale)
  for (const t of texts) {
    const said = printable(t.text)
    doc.font(t.bold ? 'bold' : 'body').fontSize(t.size)
    const wide = doc.widthOfString(said)
    const x = t.middle ? t.x - wide / 2 : t.x
    if (t.rim) doc.rect(x - 1, t.y - t.size * 0.85, wide + 2, t.size * 1.1).fill('#ffffff')
    doc.fillColor(t.fill).text(said, x, t.y - t.size * 0.92, { lineBreak: false })
  }
  doc.restore()
  doc.fillColor('#111111')
  doc.page.margins.bottom = bottom
}
