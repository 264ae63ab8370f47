import { deference } from '../deference'
import { type Acceptance, longestQuestion } from '../estimate/acceptance'
import { type EstimateDocument, isFirm, type Option } from '../estimate/document'
import { moneyText } from '../estimate/money'
import { signaturePath } from '../estimate/signature'
import { basisText, changeLine, changeText, headOf, unsettledText } from '../estimate/words'
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

const page = (title: string, body: string, token: string | null) =>
  plainPage({ title, body, ...(token && { script: '/offer.js' }) })

const paragraphs = (text: string) =>
  text
    .split(/\n+/)
    .filter(Boolean)
    .map(p => `<p>${escaped(p)}</p>`)
    .join('')

/** The customer’s page of an offer: what each option keeps alive and costs, a question, an acceptance. Plain HTML, readable without any script. */
export function offerHtml(document: EstimateDocument, standing: OfferStanding): string {
  const { firm, title, place, options, changeOf } = document
  const change = changeText(document)
  const body = [
    `<header><p class="quiet">${escaped(firm)}</p><h1>${escaped(title)}</h1><p>${escaped(headOf(document))} of ${document.on}${place ? `, ${escaped(place)}` : ''}. Valid until ${document.validUntil}.</p></header>`,
    standingHtml(standing, document),
    paragraphs(document.intro),
    change && changeOf
      ? `<section><h2>What changes</h2><p class="said">${escaped(change)}</p><dl>${changeOf.lines.map(l => `<dt>${escaped(l.name)}</dt><dd>${escaped(changeLine(l))}</dd>`).join('')}</dl></section>`
      : '',
    ...options.map(optionHtml),
    document.exclusions ? `<section><h2>Not included</h2>${paragraphs(document.exclusions)}</section>` : '',
    document.payment ? `<section><h2>Payment</h2>${paragraphs(document.payment)}</section>` : '',
    paragraphs(document.closing),
    `<p class="row no-print"><a class="button" href="/api/offer/${standing.token}/pdf${standing.acceptance ? '?signed' : ''}">${standing.acceptance ? 'With your acceptance' : 'The same'} on paper (PDF)</a></p>`,
    standing.state === 'open' ? acceptHtml(options, standing.token) : '',
    standing.state === 'open' || standing.state === 'accepted' ? askHtml(standing) : '',
    `<footer class="quiet"><p>${escaped(deference)}</p><p>Checksum of what you see: ${standing.sha256.slice(0, 16)}…</p></footer>`,
  ]
  return page(`${headOf(document)}: ${title}`, body.join(''), standing.token)
}

function standingHtml({ state, acceptance }: OfferStanding, { firm, validUntil }: EstimateDocument): string {
  if (acceptance)
    return `<section id="accepted"><h2>Accepted</h2><p><b>${escaped(acceptance.option.name)}</b>, ${moneyText(acceptance.option.total)}, by ${escaped(acceptance.name)} on ${acceptance.at.slice(0, 10)}.</p>${signatureHtml(acceptance)}</section>`
  const said = {
    open: '',
    accepted: '',
    newer: `There is a newer version of this estimate. Ask ${firm} for its link: this one can no longer be accepted.`,
    expired: `This estimate was valid until ${validUntil}. Ask ${firm} for a new one: prices may have moved.`,
    withdrawn: `${firm} has withdrawn this estimate.`,
  }[state]
  return said ? `<p class="note" role="status">${escaped(said)}</p>` : ''
}

function signatureHtml({ name, signature, typed }: Acceptance): string {
  if (typed) return '<p class="quiet">Signed with the typed name.</p>'
  return `<svg viewBox="0 0 1000 500" role="img" aria-label="Signature of ${escaped(name)}"><path d="${signaturePath(signature)}" fill="none" stroke="#111" stroke-width="8" stroke-linecap="round"/></svg>`
}

function optionHtml(o: Option): string {
  const open = unsettledText(o)
  const rows = [
    ...o.lines.map(l => [l.amount ? `${l.name}, ${l.amount}` : l.name, moneyText(l.cents)]),
    ...(o.tax
      ? [[`${o.tax.name}, ${Number((o.tax.fraction * 100).toFixed(4))} %`, moneyText(o.tax.cents)]]
      : []),
  ]
  return `<section data-option="${escaped(o.id)}"><h2>${escaped(o.name)}</h2><p class="said">${escaped(o.promise.sentence)}</p>${o.promise.cautions.map(c => `<p class="note">${escaped(c)}</p>`).join('')}${open ? `<p class="note">${escaped(open)}</p>` : ''}<p class="price">${moneyText(o.total)}</p>${isFirm(o) ? '' : `<p class="note">${escaped(basisText(o))}</p>`}<details><summary>What is in the price</summary><table><tbody>${rows.map(([name, cents]) => `<tr><td>${escaped(name ?? '')}</td><td>${cents}</td></tr>`).join('')}</tbody><tfoot><tr><th>Together</th><th>${moneyText(o.total)}</th></tr></tfoot></table><p class="quiet">${escaped(basisText(o))}</p></details></section>`
}

function acceptHtml(options: readonly Option[], token: string): string {
  const firm = options.filter(isFirm)
  if (!firm.length)
    return '<p class="note">These are ranges from a first call. They become a price that you can accept once we have seen your panel.</p>'
  return `<section class="no-print"><h2>Accept</h2><form id="accept" data-token="${token}" novalidate><fieldset class="pick" style="border:0;padding:0;margin:0"><legend>Which option?</legend>${firm
    .map(
      o =>
        `<label><input type="radio" name="option" value="${escaped(o.id)}"${firm.length === 1 ? ' checked' : ''}> <span>${escaped(o.name)}, <b>${moneyText(o.total)}</b></span></label>`,
    )
    .join(
      '',
    )}</fieldset><label for="name">Your name</label><input type="text" id="name" name="name" maxlength="80" autocomplete="name"><label id="sign">Sign with a finger or the mouse</label><canvas id="signature" tabindex="0" role="img" aria-labelledby="sign"></canvas><p class="row"><button type="button" id="again">Sign anew</button><span class="pick"><label><input type="checkbox" id="typed"> I cannot draw: my typed name stands for it</label></span></p><p role="alert" id="accept-problem"></p><button class="main">Accept with my signature</button><noscript><p>To sign here, allow scripts; or sign the paper.</p></noscript></form></section>`
}

function askHtml({ token, questions }: OfferStanding): string {
  const asked = questions.length
    ? `<ul>${questions.map(q => `<li>${escaped(q.text)} <span class="quiet">${q.at.slice(0, 10)}</span></li>`).join('')}</ul>`
    : ''
  return `<section class="no-print"><h2>A question</h2>${asked}<form id="ask" data-token="${token}" novalidate><label for="text">What would you like to know?</label><textarea id="text" name="text" rows="3"></textarea><p class="quiet">At most ${longestQuestion.toLocaleString('en-US')} characters.</p><p role="alert" id="ask-problem"></p><p role="status" id="asked"></p><button>Send the question</button></form></section>`
}

/** What a link says that never was one, or is none any more. */
export const offerGoneHtml = (): string =>
  page(
    'No such estimate',
    '<section><h1>This link leads nowhere</h1><p>It may be mistyped, or cut short on the way. Ask the installer for a new one.</p></section>',
    null,
  )
