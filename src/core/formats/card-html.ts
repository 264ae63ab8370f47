import type { Card } from '../card/card'
import type { Drawing, DrawnPlace } from '../card/drawing'
import { cardIn, type SaidCard, type SaidLine } from '../card/words'
import { inLanguage, type Language, languageKeys, languages } from '../languages'
import { plainPage } from './plain-page'
import { escaped } from './svg-text'

/** What stands under a card: whose it is, and of which day. */
export interface CardFoot {
  firm: string
  revision: number
  day: string
}

export const cardStyle = `
.card{font-size:1.3rem;line-height:1.35}.card h2{font-size:1.6rem}.card ol{padding-left:1.6rem;margin:.4rem 0}.card ol>li{margin:.7rem 0;font-weight:600}.card ol>li::marker{color:var(--water);font-weight:800}
.card ul{list-style:none;padding:0;margin:.3rem 0}.card ul li{border:2px solid var(--water);border-radius:6px;padding:.2rem .6rem;margin:.25rem 0;font-weight:700}
.card .wrong{border-left:8px solid var(--stop);padding-left:.7rem;font-weight:800}
.card .board{border-collapse:collapse;font-size:.95rem;table-layout:fixed}.card .board td{border:1px solid var(--rule);padding:.15rem .3rem;text-align:left;width:50%}.card .board td:last-child{text-align:left}
.card .on{background:var(--water);color:var(--paper);font-weight:700}.card .off{color:var(--quiet)}.card .locked{color:var(--stop);font-weight:700;border-style:double!important;border-width:3px!important}
@media print{.card{font-size:12pt}.card .ways{display:grid;grid-template-columns:1fr 1fr;gap:1rem}}`

const steps = (lines: readonly SaidLine[]) =>
  `<ol>${lines
    .map(
      ({ text, each }) =>
        `<li>${escaped(text)}${each.length ? `<ul>${each.map(e => `<li>${escaped(e)}</li>`).join('')}</ul>` : ''}</li>`,
    )
    .join('')}</ol>`

/** How a place stands, by word and by sign: colour alone tells nobody by lamplight. */
const standsSign = { on: '■', off: '□', locked: '✕' } as const

const placeHtml = (places: readonly DrawnPlace[]) =>
  places.length
    ? places
        .map(p => `${standsSign[p.stands]} ${escaped(p.name)} ${p.continued ? '↑' : escaped(p.label)}`)
        .join('<br>')
    : ''
const worst = (places: readonly DrawnPlace[]) =>
  (['locked', 'on', 'off'] as const).find(s => places.some(p => p.stands === s)) ?? 'free'

function drawingHtml(drawing: Drawing, language: Language): string {
  const say = inLanguage(language)
  const cell = (places: readonly DrawnPlace[]) => `<td class="${worst(places)}">${placeHtml(places)}</td>`
  const legend = `<p class="quiet">${(['on', 'off', 'locked'] as const).map(s => `${standsSign[s]} ${escaped(say(`card.drawing.${s}`))}`).join(' · ')}</p>`
  if (drawing.kind === 'switch')
    return `<section><h2>${escaped(say('card.drawing.switch'))}</h2><table class="board"><tbody>${drawing.places.map(p => `<tr>${cell([p])}</tr>`).join('')}</tbody></table></section>`
  const main =
    drawing.main === null
      ? ''
      : `<tr><td colspan="2" class="${drawing.main}">${standsSign[drawing.main]} ${escaped(say('card.drawing.main'))}</td></tr>`
  return `<section><h2>${escaped(say('card.drawing.head', { panel: drawing.name }))}</h2><table class="board"><tbody>${main}${drawing.rows.map(([a, b]) => `<tr>${cell(a)}${cell(b)}</tr>`).join('')}</tbody></table>${legend}</section>`
}

/** The card itself, as part of a page. */
export function cardBody(said: SaidCard, drawings: readonly Drawing[], foot: CardFoot): string {
  const say = inLanguage(said.language)
  const way = ({ head, lines }: SaidCard['to'], id: string) =>
    `<section id="${id}"><h2>${escaped(head)}</h2>${steps(lines)}</section>`
  return [
    '<div class="card">',
    said.wrong.length
      ? `<section><p class="wrong">${escaped(say('card.wrong'))}</p><ul>${said.wrong.map(w => `<li>${escaped(w)}</li>`).join('')}</ul></section>`
      : '',
    `<div class="ways">${way(said.to, 'to')}${way(said.back, 'back')}</div>`,
    ...said.sections.map(
      s =>
        `<section data-about="${s.key}"><h2>${escaped(s.head)}</h2>${s.lines.map(l => `<p>${escaped(l)}</p>`).join('')}</section>`,
    ),
    ...drawings.map(d => drawingHtml(d, said.language)),
    `<p><b>${escaped(said.call(foot.firm))}</b></p><p class="quiet">${escaped(said.defers)} ${escaped(say('card.made', { title: said.title, revision: String(foot.revision), day: foot.day }))}</p>`,
    '</div>',
  ].join('')
}

/** Links to the same in the other languages. */
export const otherLanguages = (here: Language, address: (language: Language) => string): string =>
  `<nav class="row no-print">${languageKeys
    .filter(l => l !== here)
    .map(
      l => `<a class="button" lang="${l}" hreflang="${l}" href="${escaped(address(l))}">${languages[l]}</a>`,
    )
    .join('')}</nav>`

/** The card as a page of its own: plain HTML, no script. */
export function cardHtml(card: Card, language: Language, foot: CardFoot): string {
  const said = cardIn(language, card)
  return plainPage({
    language,
    title: `${said.heading}: ${card.title}`,
    style: cardStyle,
    body: `<header><h1>${escaped(said.heading)}</h1><p class="quiet">${escaped([card.title, card.place].filter(Boolean).join(', '))}</p></header>${otherLanguages(language, l => `?language=${l}`)}${cardBody(said, card.drawings, foot)}`,
  })
}
