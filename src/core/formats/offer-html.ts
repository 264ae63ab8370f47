import { type Acceptance, longestQuestion } from '../estimate/acceptance'
import { type EstimateDocument, isFirm, type Option } from '../estimate/document'
import { moneyText } from '../estimate/money'
import { signaturePath } from '../estimate/signature'
import { basisText, changeLine, changeText, headOf, unsettledText } from '../estimate/words'
import { inLanguage, type Language, type Values } from '../languages'
import { plainPage } from './plain-page'
import { escaped } from './svg-text'

/** What a page shows beside what was frozen. */
export interface OfferStanding {
  state: 'open' | 'accepted' | 'newer' | 'expired' | 'withdrawn'
  acceptance: Acceptance | null
  questions: readonly { at: string; text: string }[]
  sha256: string
  /** where what is pressed is sent to */
  token: string
}

const page = (title: string, body: string, script: boolean, language: Language) =>
  plainPage({ language, title, body, ...(script && { script: '/offer.js' }) })

const paragraphs = (text: string) =>
  text
    .split(/\n+/)
    .filter(Boolean)
    .map(p => `<p>${escaped(p)}</p>`)
    .join('')

/** Texts of an offer, escaped, by their keys. */
type Said = (key: string, values?: Values) => string
const saidIn =
  (language: Language): Said =>
  (key, values) =>
    escaped(inLanguage(language)(`offer.${key}`, values))

/** The customer’s page of an offer: what each option keeps alive and costs, a question, an acceptance. Plain HTML, readable without any script. */
export function offerHtml(document: EstimateDocument, standing: OfferStanding): string {
  const { firm, title, place, options, changeOf, language = 'en' } = document
  const t = saidIn(language)
  const say = inLanguage(language)
  const change = changeText(document)
  const about = say('offer.of', {
    head: headOf(document),
    on: document.on,
    place: place || 'none',
    until: document.validUntil,
  })
  const texts = Object.fromEntries(
    ['asked', 'chooseFirst', 'nameFirst', 'notSent', 'failed', 'name', 'which', 'ask', 'refused.small'].map(
      key => [key, say(`offer.${key}`)],
    ),
  )
  const body = [
    `<header><p class="quiet">${escaped(firm)}</p><h1>${escaped(title)}</h1><p>${escaped(about)}</p></header>`,
    standingHtml(standing, document),
    document.currency ? paragraphs(t('currency', { code: document.currency })) : '',
    paragraphs(document.intro),
    change && changeOf
      ? `<section><h2>${t('changes')}</h2><p class="said">${escaped(change)}</p><dl>${changeOf.lines.map(l => `<dt>${escaped(l.name)}</dt><dd>${escaped(changeLine(l, language))}</dd>`).join('')}</dl></section>`
      : '',
    ...options.map(o => optionHtml(o, language)),
    document.exclusions
      ? `<section><h2>${t('notIncluded')}</h2>${paragraphs(document.exclusions)}</section>`
      : '',
    document.payment ? `<section><h2>${t('payment')}</h2>${paragraphs(document.payment)}</section>` : '',
    paragraphs(document.closing),
    `<p class="row no-print"><a class="button" href="/api/offer/${standing.token}/pdf${standing.acceptance ? '?signed' : ''}">${t(standing.acceptance ? 'paperSigned' : 'paper')}</a></p>`,
    standing.state === 'open' ? acceptHtml(options, standing.token, t) : '',
    standing.state === 'open' || standing.state === 'accepted' ? askHtml(standing, t) : '',
    `<footer class="quiet"><p>${t('defers')}</p><p>${t('checksum', { sum: standing.sha256.slice(0, 16) })}</p></footer><script type="application/json" id="offer">${JSON.stringify(texts).replace(/</g, '\\u003c')}</script>`,
  ]
  return page(`${headOf(document)}: ${title}`, body.join(''), true, language)
}

function standingHtml(
  { state, acceptance }: OfferStanding,
  { firm, validUntil, language = 'en' }: EstimateDocument,
): string {
  const t = saidIn(language)
  if (acceptance) {
    const by = t('acceptedBy', {
      option: acceptance.option.name,
      total: moneyText(acceptance.option.total),
      name: acceptance.name,
      on: acceptance.at.slice(0, 10),
    })
    return `<section id="accepted"><h2>${t('accepted')}</h2><p><b>${by}</b></p>${signatureHtml(acceptance, t)}</section>`
  }
  return state === 'newer' || state === 'expired' || state === 'withdrawn'
    ? `<p class="note" role="status">${t(`state.${state}`, { firm, until: validUntil })}</p>`
    : ''
}

function signatureHtml({ name, signature, typed }: Acceptance, t: Said): string {
  if (typed) return `<p class="quiet">${t('signedTyped')}</p>`
  return `<svg viewBox="0 0 1000 500" role="img" aria-label="${t('signatureOf', { name })}"><path d="${signaturePath(signature)}" fill="none" stroke="#111" stroke-width="8" stroke-linecap="round"/></svg>`
}

function optionHtml(o: Option, language: Language): string {
  const t = saidIn(language)
  const open = unsettledText(o, language)
  const rows = [
    ...o.lines.map(l => [l.amount ? `${l.name}, ${l.amount}` : l.name, moneyText(l.cents)]),
    ...(o.tax
      ? [[`${o.tax.name}, ${Number((o.tax.fraction * 100).toFixed(4))} %`, moneyText(o.tax.cents)]]
      : []),
  ]
  const basis = escaped(basisText(o, language))
  return `<section data-option="${escaped(o.id)}"><h2>${escaped(o.name)}</h2><p class="said">${escaped(o.promise.sentence)}</p>${o.promise.cautions.map(c => `<p class="note">${escaped(c)}</p>`).join('')}${open ? `<p class="note">${escaped(open)}</p>` : ''}<p class="price">${moneyText(o.total)}</p>${isFirm(o) ? '' : `<p class="note">${basis}</p>`}<details><summary>${t('inPrice')}</summary><table><tbody>${rows.map(([name, cents]) => `<tr><td>${escaped(name ?? '')}</td><td>${cents}</td></tr>`).join('')}</tbody><tfoot><tr><th>${t('together')}</th><th>${moneyText(o.total)}</th></tr></tfoot></table><p class="quiet">${basis}</p></details></section>`
}

function acceptHtml(options: readonly Option[], token: string, t: Said): string {
  const firm = options.filter(isFirm)
  if (!firm.length) return `<p class="note">${t('onlyRanges')}</p>`
  const picks = firm
    .map(
      o =>
        `<label><input type="radio" name="option" value="${escaped(o.id)}"${firm.length === 1 ? ' checked' : ''}> <span>${escaped(o.name)}, <b>${moneyText(o.total)}</b></span></label>`,
    )
    .join('')
  return `<section class="no-print"><h2>${t('accept')}</h2><form id="accept" data-token="${token}" method="post" novalidate><fieldset class="pick" style="border:0;padding:0;margin:0"><legend>${t('which')}</legend>${picks}</fieldset><label for="name">${t('name')}</label><input type="text" id="name" name="name" maxlength="80" autocomplete="name"><label id="sign">${t('sign')}</label><canvas id="signature" tabindex="0" role="img" aria-labelledby="sign"></canvas><p class="row"><button type="button" id="again" disabled>${t('again')}</button><span class="pick"><label><input type="checkbox" id="typed"> ${t('typed')}</label></span></p><p role="alert" id="accept-problem"></p><button class="main" disabled>${t('acceptSend')}</button><noscript><p>${t('noScript')}</p></noscript></form></section>`
}

function askHtml({ token, questions }: OfferStanding, t: Said): string {
  const asked = questions.length
    ? `<ul>${questions.map(q => `<li>${escaped(q.text)} <span class="quiet">${q.at.slice(0, 10)}</span></li>`).join('')}</ul>`
    : ''
  return `<section class="no-print"><h2>${t('question')}</h2>${asked}<form id="ask" data-token="${token}" method="post" novalidate><label for="text">${t('ask')}</label><textarea id="text" name="text" rows="3"></textarea><p class="quiet">${t('most', { n: longestQuestion })}</p><p role="alert" id="ask-problem"></p><p role="status" id="asked"></p><button disabled>${t('askSend')}</button><noscript><p>${t('noScriptAsk')}</p></noscript></form></section>`
}

/** What a link says that never was one, or is none any more. */
export const offerGoneHtml = (): string =>
  page(
    'No such estimate',
    '<section><h1>This link leads nowhere</h1><p>It may be mistyped, or cut short on the way. Ask the installer for a new one.</p></section>',
    false,
    'en',
  )
