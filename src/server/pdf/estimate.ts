import type { Acceptance } from '@/core/estimate/acceptance'
import type { EstimateDocument, Option } from '@/core/estimate/document'
import { difference, moneyText } from '@/core/estimate/money'
import { basisText, changeText, headOf, lastsText, unsettledText } from '@/core/estimate/words'
import { inLanguage, type Language, type Values } from '@/core/languages'
import { drawnName, Paper } from './paper'

const printedIn =
  (language: Language) =>
  (key: string, values?: Values): string =>
    inLanguage(language)(`offer.${key}`, values)

/** An estimate or a change order on paper, as it was frozen; with the acceptance where it has one. */
export function estimatePdf(
  document: EstimateDocument,
  acceptance: Acceptance | null = null,
  logo: Buffer | null = null,
): Promise<Buffer> {
  const { firm, on, options, changeOf, language = 'en' } = document
  const t = printedIn(language)
  const paper = new Paper(`${headOf(document)}: ${document.title}`, {
    firm,
    revision: document.version,
    on,
    language,
    logo,
  })
  paper.paragraph(
    t('printed.for', {
      firm,
      title: document.title,
      place: document.place || 'none',
      on,
      until: document.validUntil,
    }),
  )
  if (document.currency) paper.paragraph(t('currency', { code: document.currency }))
  if (document.intro) paper.paragraph(document.intro)
  const change = changeText(document)
  if (change && changeOf) {
    paper.paragraph(change)
    paper.table(
      [
        { head: t('changes'), share: 52, cell: c => c.name },
        {
          head: t('printed.before'),
          share: 16,
          cell: c => (c.was ? moneyText(c.was) : t('printed.isNew')),
          figure: true,
        },
        {
          head: t('printed.now'),
          share: 16,
          cell: c => (c.now ? moneyText(c.now) : t('printed.noLonger')),
          figure: true,
        },
        {
          head: t('printed.difference'),
          share: 16,
          cell: c => difference((c.now?.low ?? 0) - (c.was?.low ?? 0)),
          figure: true,
        },
      ],
      changeOf.lines,
    )
  }
  if (options.length > 1) sideBySide(paper, options, language)
  for (const option of options) oneOption(paper, option, language)
  for (const [head, text] of [
    [t('notIncluded'), document.exclusions],
    [t('payment'), document.payment],
  ] as const)
    if (text) {
      paper.heading(head)
      paper.paragraph(text)
    }
  if (document.closing) paper.paragraph(document.closing)
  paper.heading(t('printed.acceptance'))
  if (acceptance) signed(paper, acceptance, language)
  else paper.paragraph(t('printed.blank'))
  return paper.end()
}

function sideBySide(paper: Paper, options: readonly Option[], language: Language) {
  const t = printedIn(language)
  paper.heading(t('printed.beside'))
  const rows: [string, (o: Option) => string][] = [
    [t('printed.price'), o => moneyText(o.total)],
    [
      t('printed.keepsAlive'),
      o => t('printed.list', { names: o.promise.keeps.slice(0, 8) }) || t('printed.unknown'),
    ],
    [t('printed.lasts'), o => lastsText(o, language)],
    [
      t('printed.leaves'),
      o => t('printed.list', { names: o.promise.leaves.slice(0, 6) }) || t('printed.nothing'),
    ],
    [t('printed.restsOn'), o => t(o.basis === 'wiring plan' ? 'printed.plan' : 'printed.ranges')],
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

export function oneOption(paper: Paper, o: Option, language: Language = 'en') {
  const t = printedIn(language)
  paper.heading(o.name)
  paper.paragraph(o.promise.sentence)
  for (const caution of o.promise.cautions) paper.paragraph(caution)
  paper.table(
    [
      { head: t('printed.what'), share: 56, cell: l => l.name },
      { head: t('printed.muchOf'), share: 18, cell: l => l.amount, figure: true },
      { head: t('printed.price'), share: 26, cell: l => moneyText(l.cents), figure: true },
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
      { name: t('together'), amount: '', cents: o.total },
    ],
  )
  const open = unsettledText(o, language)
  if (open) paper.paragraph(open)
  paper.paragraph(basisText(o, language))
}

export function signed(paper: Paper, acceptance: Acceptance, language: Language = 'en') {
  const { name, at, option, documentSha256 } = acceptance
  paper.paragraph(
    printedIn(language)('printed.accepted', {
      option: option.name,
      total: moneyText(option.total),
      name,
      at: at.slice(0, 16).replace('T', ' '),
      sum: documentSha256,
    }),
  )
  drawnName(paper, acceptance)
}
