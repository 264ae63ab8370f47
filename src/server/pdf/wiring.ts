import { inks } from '@/core/formats/wire-inks'
import { type Drawing, wiringDrawing } from '@/core/formats/wiring-drawing'
import type { Job } from '@/core/job/schema'
import { figure, quantity } from '@/core/units/format'
import { wiringPlan } from '@/core/work/wiring'
import { scheduleOf } from '@/core/work/wiring/schedule'
import { Paper, printable, type Sheet } from './paper'

/** The wiring plan on paper: its drawing on one sheet, the schedule, the ways, and what is open. */
export function wiringPdf(job: Job, sheet: Sheet): Promise<Buffer> {
  const plan = wiringPlan(job)
  const paper = new Paper(`Wiring plan: ${job.title}`, sheet, 'landscape')
  const drawing = wiringDrawing(plan)
  if (drawing.shapes.length) {
    drawn(paper, drawing)
    paper.next()
  }
  paper.heading('Schedule of conductors')
  paper.table(
    [
      { head: 'Mark', share: 14, cell: r => r.mark },
      { head: 'What', share: 6, cell: r => r.function },
      { head: 'From', share: 22, cell: r => r.from },
      { head: 'To', share: 22, cell: r => r.to },
      { head: 'AWG', share: 5, cell: r => r.sizeAwg },
      { head: 'Colour', share: 9, cell: r => `${r.colour}${r.metal === 'aluminum' ? ', Al' : ''}` },
      { head: 'Cut, ft', share: 5, cell: r => (r.cutFt ? figure(r.cutFt) : ''), figure: true },
      { head: 'Strip, in', share: 7, cell: r => `${figure(r.stripFromIn)} / ${figure(r.stripToIn)}` },
      { head: 'Through', share: 14, cell: r => r.route },
      { head: 'Comes', share: 9, cell: r => r.comes },
    ],
    scheduleOf(plan),
  )
  const ways = plan.routes.filter(r => r.from !== r.to)
  if (ways.length) {
    paper.heading('Ways')
    paper.table(
      [
        { head: 'From, to', share: 26, cell: r => r.name },
        {
          head: 'Raceway',
          share: 12,
          cell: r => (r.raceway ? `${r.raceway.tradeSize} ${r.raceway.kind}` : 'none'),
        },
        {
          head: 'Length',
          share: 16,
          cell: r => `${quantity(r.lengthFt, 'ft')}${r.lengthFrom === 'assumed' ? ', assumed' : ''}`,
        },
        { head: 'Bends', share: 7, cell: r => `${r.bendsDeg}°`, figure: true },
        { head: 'Straps', share: 7, cell: r => String(r.supports), figure: true },
        { head: 'Pull points', share: 9, cell: r => String(r.pullPoints), figure: true },
        {
          head: 'Filled',
          share: 14,
          cell: r =>
            r.fillFraction === null
              ? ''
              : `${quantity(r.fillFraction, 'fraction')} of ${quantity(r.mayFillFraction ?? 0, 'fraction')}`,
        },
      ],
      ways,
    )
  }
  if (plan.splices.length) {
    const devices = new Map(plan.devices.map(d => [d.id, d]))
    paper.heading('Splices and boxes')
    paper.table(
      [
        { head: 'Splice', share: 44, cell: s => devices.get(s.device)?.name ?? s.device },
        { head: 'In', share: 28, cell: s => devices.get(s.device)?.within ?? '' },
        { head: 'With', share: 28, cell: s => s.name },
      ],
      plan.splices,
    )
    for (const b of plan.boxes)
      paper.paragraph(
        `${b.name}: ${b.box}, ${quantity(b.requiredIn3, 'in3')} of ${quantity(b.volumeIn3, 'in3')} filled (NEC 314.16).`,
      )
  }
  if (plan.open.length) {
    paper.heading('To be looked at')
    for (const { text } of plan.open) paper.paragraph(`• ${text}`)
  }
  paper.paragraph(
    'Torque every terminal as its label says, and write it down where it was done (NEC 110.14(D)).',
  )
  return paper.end()
}

/** The drawing as large as the page holds it. */
function drawn({ doc, width }: Paper, { width: w, height: h, shapes }: Drawing) {
  const top = doc.y + 4
  const scale = Math.min(width / w, (doc.page.height - top - 56) / h, 1)
  // what is scaled lies within the page, whatever its own figures say
  const { bottom } = doc.page.margins
  doc.page.margins.bottom = -h
  doc.save().translate(36, top).scale(scale)
  for (const s of shapes)
    if (s.kind === 'box') {
      doc.lineWidth(s.weight === 'enclosure' ? 1.6 : 0.8)
      if (s.weight === 'enclosure') doc.rect(s.x, s.y, s.w, s.h).fillAndStroke('#ffffff', '#111111')
      else doc.rect(s.x, s.y, s.w, s.h).fillAndStroke('#f3f5f6', '#9aa4aa')
    }
  for (const s of shapes) {
    if (s.kind !== 'wire') continue
    const { line, rim } = inks[s.ink]
    for (const [colour, weight] of [...(rim ? [[rim, 3.4] as const] : []), [line, rim ? 1.8 : 2] as const]) {
      s.points.forEach((p, n) => {
        const from = s.points[n - 1]
        const [out, into] = s.pulls[n - 1] ?? [0, 0]
        if (from) doc.bezierCurveTo(from.x + out, from.y, p.x + into, p.y, p.x, p.y)
        else doc.moveTo(p.x, p.y)
      })
      if (s.there) doc.dash(6, { space: 4 })
      doc.lineWidth(weight).strokeColor(colour).stroke()
      doc.undash()
    }
  }
  for (const s of shapes) if (s.kind === 'dot') doc.circle(s.x, s.y, 2.4).fill('#111111')
  for (const s of shapes) {
    if (s.kind !== 'text') continue
    const text = printable(s.text)
    doc.font(s.bold ? 'bold' : 'body').fontSize(s.size)
    const wide = doc.widthOfString(text)
    const x = s.end ? s.x - wide : s.x
    if (s.rimmed) doc.rect(x - 1, s.y - s.size * 0.85, wide + 2, s.size * 1.1).fill('#ffffff')
    doc.fillColor('#111111').text(text, x, s.y - s.size * 0.92, { lineBreak: false })
  }
  doc.restore()
  doc.page.margins.bottom = bottom
}
