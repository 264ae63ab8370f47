import type { Acceptance } from '@/core/estimate/acceptance'
import type { EstimateDocument, Option } from '@/core/estimate/document'
import { difference, moneyText } from '@/core/estimate/money'
import { basisText, changeText, headOf, lastsText, unsettledText } from '@/core/estimate/words'
import { together } from '@/core/units/format'
import { drawnName, Paper } from './paper'

/** An estimate or a change order on paper, as it was frozen; with the acceptance where it has one. */
export function estimatePdf(
  document: EstimateDocument,
  acceptance: Acceptance | null = null,
): Promise<Buffer> {
  const { firm, on, options, changeOf } = document
  const paper = new Paper(`${headOf(document)}: ${document.title}`, { firm, revision: document.version, on })
  paper.paragraph(
    `${firm} for ${document.title}${document.place ? `, ${document.place}` : ''}. Of ${on}, valid until ${document.validUntil}.`,
  )
  if (document.intro) paper.paragraph(document.intro)
  const change = changeText(document)
  if (change && changeOf) {
    paper.paragraph(change)
    paper.table(
      [
        { head: 'What changes', share: 52, cell: c => c.name },
        { head: 'Before', share: 16, cell: c => (c.was ? moneyText(c.was) : 'new'), figure: true },
        { head: 'Now', share: 16, cell: c => (c.now ? moneyText(c.now) : 'no longer'), figure: true },
        {
          head: 'Difference',
          share: 16,
          cell: c => difference((c.now?.low ?? 0) - (c.was?.low ?? 0)),
          figure: true,
        },
      ],
      changeOf.lines,
    )
  }
  if (options.length > 1) sideBySide(paper, options)
  for (const option of options) oneOption(paper, option)
  for (const [head, text] of [
    ['Not included', document.exclusions],
    ['Payment', document.payment],
  ] as const)
    if (text) {
      paper.heading(head)
      paper.paragraph(text)
    }
  if (document.closing) paper.paragraph(document.closing)
  paper.heading('Acceptance')
  if (acceptance) signed(paper, acceptance)
  else
    paper.paragraph(
      'Option: ______________________   Name: ______________________   Date: ______________   Signature: ______________________',
    )
  return paper.end()
}

function sideBySide(paper: Paper, options: readonly Option[]) {
  paper.heading('The options beside each other')
  const rows: [string, (o: Option) => string][] = [
    ['Price', o => moneyText(o.total)],
    ['Keeps alive', o => together(o.promise.keeps.slice(0, 8)) || 'cannot be said yet'],
    ['Lasts', lastsText],
    ['Does not feed', o => together(o.promise.leaves.slice(0, 6)) || 'nothing that was asked for'],
    ['Rests on', o => o.basis],
  ]
  paper.table(
    [
      { head: '', share: 18, cell: r => r[0] },
      ...options.map(o => ({
        head: o.name,
        share: 82 / options.length,
        cell: (r: (typeof rows)[number]) => r[1](o),
      })),
    ],
    rows,
  )
}

export function oneOption(paper: Paper, o: Option) {
  paper.heading(o.name)
  paper.paragraph(o.promise.sentence)
  for (const caution of o.promise.cautions) paper.paragraph(caution)
  paper.table(
    [
      { head: 'What', share: 56, cell: l => l.name },
      { head: 'How much', share: 18, cell: l => l.amount, figure: true },
      { head: 'Price', share: 26, cell: l => moneyText(l.cents), figure: true },
    ],
    [
      ...o.lines,
      ...(o.tax
        ? [
            {
              name: `${o.tax.name}, ${Number((o.tax.fraction * 100).toFixed(4))} %`,
              amount: '',
              cents: o.tax.cents,
            },
          ]
        : []),
      { name: 'Together', amount: '', cents: o.total },
    ],
  )
  const open = unsettledText(o)
  if (open) paper.paragraph(open)
  paper.paragraph(basisText(o))
}

export function signed(paper: Paper, acceptance: Acceptance) {
  const { name, at, option, documentSha256 } = acceptance
  paper.paragraph(
    `${option.name}, ${moneyText(option.total)}: accepted by ${name} at ${at.slice(0, 16).replace('T', ' ')} UTC, of the document with the checksum ${documentSha256}.`,
  )
  drawnName(paper, acceptance)
}
