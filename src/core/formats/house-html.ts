import type { Card } from '../card/card'
import type { Tonight } from '../card/tonight'
import type { HouseWord } from '../card/word'
import { cardIn, timeIn } from '../card/words'
import { inLanguage, type Language } from '../languages'
import { type CardFoot, cardBody, cardStyle, otherLanguages } from './card-html'
import { plainPage } from './plain-page'
import { escaped } from './svg-text'

export interface HousePage {
  token: string
  language: Language
  /** null while there is none */
  card: Card | null
  title: string
  place: string
  tonight: Tonight
  foot: CardFoot
  /** whether there is a pack of what was handed over */
  pack: boolean
  /** what was sent by this link before */
  words: readonly { at: string; word: HouseWord }[]
}

const fahrenheit = (c: number) => Math.round(c * 1.8 + 32)

/** The page of a house, for who lives there: plain HTML; its one small script sends what is typed, and keeps the page for a night without a connection. */
export function houseHtml({
  token,
  language,
  card,
  title,
  place,
  tonight,
  foot,
  pack,
  words,
}: HousePage): string {
  const say = inLanguage(language)
  const t = (key: string, values?: Parameters<typeof say>[1]) => escaped(say(`house.${key}`, values))
  const { season, outdoorC, hours, circuits } = tonight
  const said = card && cardIn(language, card)
  const lasts = `<section id="tonight"><h2>${t('tonight')}</h2><p>${t('when', { season, outdoor: outdoorC === null ? 'none' : String(fahrenheit(outdoorC)) })}</p><p class="price">${hours === null ? t('nothing') : t('lasts', { time: timeIn(say, hours) })}</p><form method="get" action="#tonight"><input type="hidden" name="language" value="${language}"><input type="hidden" name="chosen" value="1"><fieldset class="pick" style="border:0;padding:0;margin:0"><legend>${t('pick')}</legend>${circuits
    .map(
      c =>
        `<label><input type="checkbox" name="on" value="${escaped(c.id)}"${c.on ? ' checked' : ''}> <span>${escaped(c.name)}</span></label>`,
    )
    .join('')}</fieldset><button>${t('reckon')}</button></form></section>`
  const field = (id: string, key: string, control: string) => `<label for="${id}">${t(key)}</label>${control}`
  const needsScript = `<noscript><p>${t('noScript', { firm: foot.firm })}</p></noscript>`
  const ask = `<section class="no-print"><h2>${t('askHead')}</h2><form id="ask" data-act="ask" method="post" novalidate>${field('ask-text', 'ask', '<textarea id="ask-text" name="text" rows="3"></textarea>')}<p role="alert"></p><p role="status"></p><button disabled>${t('askSend')}</button>${needsScript}</form></section>`
  const carried = (['all', 'some', 'none'] as const)
    .map(c => `<label><input type="radio" name="carried" value="${c} of it"> <span>${t(c)}</span></label>`)
    .join('')
  const outage = `<section class="no-print"><h2>${t('outageHead')}</h2><form id="outage" data-act="outage" method="post" novalidate>${field('on', 'outageOn', '<input type="date" id="on" name="on">')}${field('hours', 'outageHours', '<input type="text" inputmode="decimal" id="hours" name="hours">')}<fieldset class="pick" style="border:0;padding:0;margin:.6rem 0"><legend>${t('outageCarried')}</legend>${carried}</fieldset>${field('outage-text', 'outageText', '<textarea id="outage-text" name="text" rows="2"></textarea>')}<p role="alert"></p><p role="status"></p><button disabled>${t('outageSend')}</button>${needsScript}</form></section>`
  const earlier = words.length
    ? `<section class="no-print"><h2>${t('earlier')}</h2><ul>${words.map(({ at, word }) => `<li>${escaped(word.act === 'ask' ? word.text : `${word.on}, ${word.hours} h${word.text ? `: ${word.text}` : ''}`)} <span class="quiet">${at.slice(0, 10)}</span></li>`).join('')}</ul></section>`
    : ''
  const texts = {
    asked: say('house.asked'),
    told: say('house.told'),
    notSent: say('house.notSent'),
    failed: say('house.failed'),
    offline: say('house.offline'),
  }
  return plainPage({
    language,
    title,
    style: cardStyle,
    script: '/house.js',
    body: `<header><h1>${escaped(title)}</h1>${place ? `<p class="quiet">${escaped(place)}</p>` : ''}</header><p id="offline" class="note" role="status" hidden></p>${otherLanguages(language, l => `?language=${l}`)}${
      said && card
        ? `<p class="row no-print"><a class="button" href="#to">${escaped(said.to.head)}</a><a class="button" href="#back">${escaped(said.back.head)}</a><a class="button" href="#tonight">${t('tonight')}</a></p>${cardBody(said, card.drawings, foot)}<p class="no-print"><a class="button" href="/api/house/${token}/card?language=${language}">${t('paper')}</a></p>`
        : `<p class="note">${t('noCard')}</p>`
    }${pack ? `<p class="no-print"><a class="button" href="/api/house/${token}/pack">${t('pack')}</a></p>` : ''}${lasts}<section><h2>${t('reach', { firm: foot.firm })}</h2><p>${t('reachText')}</p></section>${ask}${outage}${earlier}<script type="application/json" id="house" data-token="${token}">${JSON.stringify(texts).replace(/</g, '\\u003c')}</script>`,
  })
}

/** What a link says that never was one, or is none any more. */
export const houseGoneHtml = (language: Language): string => {
  const say = inLanguage(language)
  return plainPage({
    language,
    title: say('house.gone'),
    body: `<section><h1>${escaped(say('house.gone'))}</h1><p>${escaped(say('house.goneText'))}</p></section>`,
  })
}
