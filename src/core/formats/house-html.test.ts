import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { saltmarshLane } from '@/server/seeds/jobs/saltmarsh-lane'
import { cardOf } from '../card/card'
import { tonight } from '../card/tonight'
import type { Job } from '../job/schema'
import { cardHtml } from './card-html'
import { houseGoneHtml, houseHtml } from './house-html'

const foot = { firm: 'Headwater & Sons', revision: 3, day: '2026-07-01' }
function page(job: Job, facts: Partial<Parameters<typeof houseHtml>[0]> = {}) {
  const card = cardOf(job)
  return houseHtml({
    token: 'T',
    language: 'en',
    card: card.ok ? card.value : null,
    title: job.title,
    place: job.place,
    tonight: tonight(job, '2026-07-01', null),
    foot,
    pack: false,
    words: [],
    ...facts,
  })
}

test('what people typed cannot become markup, in the card, in what they sent, in the firm’s name', () => {
  const evil = '<img src=x onerror=alert(1)>"\'&'
  const job = {
    ...alderHollow,
    title: evil,
    panels: alderHollow.panels.map(p => ({
      ...p,
      name: evil,
      circuits: p.circuits.map(c => ({ ...c, label: evil })),
    })),
  }
  const html = page(job, {
    foot: { ...foot, firm: evil },
    words: [{ at: '2026-06-01T10:00:00Z', word: { act: 'ask', text: evil } }],
  })
  expect(html).not.toContain('<img')
  expect(html).toContain('&lt;img src=x')
  expect(html.match(/<script/g)).toHaveLength(2)
})

test('what is typed goes by the script alone: before it has come nothing is sent, and nothing stands in an address', () => {
  const forms = page(alderHollow).match(/<form [^>]*data-act.*?<\/form>/gs) ?? []
  expect(forms).toHaveLength(2)
  for (const form of forms) {
    expect(form).toMatch(/^<form [^>]*method="post"/)
    expect(form.match(/<button/g)).toEqual(form.match(/<button(?= [^>]*disabled)/g))
  }
})

test('the page speaks one language throughout, and leads to the other', () => {
  const es = page(alderHollow, { language: 'es' })
  expect(es).toMatch(/^<!doctype html><html lang="es">/)
  expect(es).toMatch(/Pasar a la batería.*Cuánto dura.*¿Qué quiere saber\?/s)
  expect(es).toContain('href="?language=en"')
  expect(es).not.toMatch(/Switch|Send the|How long/)
  expect(houseGoneHtml('es')).toContain('Este enlace no lleva a ninguna parte')
})

test('a house without a card says so, and still takes a question', () => {
  const html = page({ ...alderHollow, source: undefined })
  expect(html).toMatch(/There is no card for this house yet.*Send the question/s)
})

test('a card that goes wrong says first that it must not be used', () => {
  const card = cardOf(alderHollow)
  if (!card.ok) throw new Error('no card')
  const wrong = { ...card.value, wrong: [{ what: 'fed twice' as const, of: 'the bus of Main' }] }
  expect(cardHtml(wrong, 'en', foot)).toMatch(
    /class="card"><section><p class="wrong">DO NOT USE THIS CARD.*the bus of Main is fed by the utility and the source/s,
  )
})

test('tonight: fewer circuits last longer, none last nothing; the season is the day’s, the weather the place’s', () => {
  const all = tonight(saltmarshLane, '2026-01-10', null)
  const few = tonight(saltmarshLane, '2026-01-10', new Set([all.circuits[0]?.id ?? '']))
  expect(all.season).toBe('winter')
  expect(few.hours ?? 0).toBeGreaterThan(all.hours ?? 0)
  expect(few.circuits.filter(c => c.on)).toHaveLength(1)
  expect(tonight(saltmarshLane, '2026-01-10', new Set()).hours).toBeNull()
  const warm = tonight(saltmarshLane, '2026-07-10', null)
  expect(warm.season).toBe('summer')
  if (saltmarshLane.outage.weather) expect(warm.outdoorC ?? 0).toBeGreaterThan(all.outdoorC ?? 0)
})
