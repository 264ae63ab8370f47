import { braid12, riffle10 } from '@/server/seeds/catalogue'
import { demoJobs } from '@/server/seeds/jobs'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import { millStreet } from '@/server/seeds/jobs/mill-street'
import { saltmarshLane } from '@/server/seeds/jobs/saltmarsh-lane'
import { proofOf } from '../commission/scene'
import { type MethodId, methodIds, methodOf } from '../hookup/method'
import { applied } from '../job/fixtures/jobs'
import { withHookupChanges, withoutHookup } from '../job/hookup-changes'
import type { Job } from '../job/schema'
import { languageKeys } from '../languages'
import { type Arrangement, jobArrangements } from '../source/arrangement'
import { type Card, cardOf } from './card'
import { type CardLine, directionsOf } from './steps'
import { walkCard } from './walk'
import { cardIn, cardText } from './words'

const cardFor = (job: Job): Card => {
  const card = cardOf(job)
  if (!card.ok) throw new Error(card.faults[0]?.message)
  return card.value
}
const text = (job: Job, only?: 'to' | 'back') => cardText(cardIn('en', cardFor(job)), only).join('\n')
const walked = (job: Job, change = (lines: CardLine[]) => lines) => {
  const p = proofOf(job)
  const directions = directionsOf(p)
  if (!directions) throw new Error('no directions')
  return walkCard(p, { to: change(directions.to), back: change(directions.back) })
}

/** A demo job connected another way: its devices from the catalogue, every position taken in turn. */
function connected(job: Job, method: MethodId, arrangement: Arrangement, everything: boolean): Job {
  const panels = job.panels.map(p => ({
    ...p,
    circuits: p.circuits.map(c =>
      everything && c.purpose === 'loads' && !job.panels.some(o => o.feederId === c.id)
        ? { ...c, picked: true }
        : c,
    ),
  }))
  const most = method === 'managed-panel' ? 12 : 10
  let at = 1
  const positions = panels
    .flatMap(p => p.circuits.filter(c => c.picked))
    .flatMap(({ id, poles }) => {
      const here = poles === 2 && at % 2 === 0 ? at + 1 : at
      at = here + poles
      return at > most + 1 ? [] : [{ circuitId: id, position: here, pinned: false }]
    })
  const bare = withoutHookup({ ...job, panels })
  const devices =
    method === 'managed-panel' ? { managed: braid12, positions } : { switch: riffle10, positions }
  const next =
    method === job.hookup.method
      ? { ...job, panels }
      : withHookupChanges({
          ...bare,
          hookup: {
            ...bare.hookup,
            method,
            backfed: { breakerA: 30, heldDown: true },
            ...(methodOf(method).serves === 'positions' && devices),
          },
        })
  return next.source ? { ...next, source: { ...next.source, arrangement } } : next
}

test('followed to the letter, every card gives the state that it promises, both ways', () => {
  let made = 0
  for (const { job } of demoJobs)
    for (const method of methodIds)
      for (const arrangement of jobArrangements)
        for (const everything of [false, true]) {
          const card = cardOf(connected(job, method, arrangement, everything))
          if (!card.ok) continue
          made++
          expect([job.title, method, arrangement, everything, card.value.wrong]).toEqual([
            job.title,
            method,
            arrangement,
            everything,
            [],
          ])
        }
  expect(made).toBeGreaterThan(400)
})

test('the walk misses no line: a card without it, or with both ways turned round, goes wrong', () => {
  for (const { job } of demoJobs) {
    expect([job.title, walked(job).faults]).toEqual([job.title, []])
    const { to, back } = cardFor(job)
    for (const line of [...to, ...back]) {
      // what is only looked at, or waited for, changes nothing in the model
      if (!line.acts.length) continue
      const without = walked(job, lines => lines.filter(l => JSON.stringify(l) !== JSON.stringify(line)))
      expect([job.title, line.say, without.faults.length > 0]).toEqual([job.title, line.say, true])
    }
  }
  const backwards = walked(millStreet, lines => [...lines].reverse()).faults
  expect(backwards.map(f => f.what)).toContain('cannot be set')
  const hurried = walked(millStreet, lines => lines.filter(l => l.say !== 'branchesOff')).faults
  expect(hurried).toContainEqual({ what: 'bridged', of: '2·4 Range' })
  expect(walked(alderHollow, lines => lines.map(l => ({ ...l, waitMin: 0 }))).faults).toContainEqual({
    what: 'started warm',
    of: '5 Kitchen refrigerator',
  })
})

test('a main that no plate holds is fed twice the moment the utility is back: the walk says so', () => {
  const job = applied(millStreet, { op: 'setHookup', facts: { method: 'backfeed-unprotected' } })
  const p = proofOf(job)
  const lines = cardFor(millStreet)
  const forgotten = { ...lines, to: lines.to.filter(l => l.say !== 'mainOff') }
  expect(walkCard(p, forgotten).faults).toContainEqual({ what: 'fed twice', of: 'the bus of Flat panel' })
})

test('what has no card says what is missing', () => {
  const why = (job: Job) => {
    const card = cardOf(job)
    return card.ok ? 'a card' : card.faults[0]
  }
  const by = (method: MethodId) => applied(millStreet, { op: 'setHookup', facts: { method } })
  expect(why({ ...alderHollow, source: undefined })).toMatchObject({ path: 'source' })
  expect(why(by('undecided'))).toMatchObject({ path: 'hookup.method' })
  expect(why(by('backfeed-unprotected'))).toMatchObject({
    message: expect.stringMatching(/nothing keeps the main from being on/),
  })
  expect(why(by('multi-circuit-switch'))).toMatchObject({
    path: 'panels',
    message: expect.stringMatching(/5 Refrigerator has no position yet/),
  })
})

test('the positions of the day-care, what rests last, and the unit put away at the end', () => {
  const lines = text(alderHollow, 'to').split('\n')
  expect(lines.slice(4, 13)).toEqual([
    '4. Output ON. Wait until the display shows it.',
    '5. At the switch, turn to SOURCE (it may read GEN) one by one, counting to ten between two:',
    '   - 1 Boiler and circulators',
    '   - 2 Office and router',
    '   - 5 Playroom lights',
    '   - 4 Kitchen counter',
    '6. When the power has been gone for 5 minutes: at the switch, turn to SOURCE (it may read GEN) one by one, counting to ten between two:',
    '   - 6 Nap room and monitors',
    '   - 3 Kitchen refrigerator',
  ])
  expect(text(alderHollow)).toMatch(/Watch Living room outlets: it stays on the utility/)
  expect(walked(alderHollow).alive).toHaveLength(6)
})

test('what depends on the house stands on its card: locks, two-poles on one phase, a life, an engine, the season', () => {
  const flat = text(millStreet)
  expect(flat).toMatch(/^TO THE VEHICLE/)
  expect(flat).toMatch(/LOCKED off: 1·3 Clothes dryer, 2·4 Range and 15·17 Water heater/)
  expect(flat).toMatch(/Nothing in the house shows it while the main is off/)
  expect(flat).toMatch(/With everything here: about 9 days/)
  const marsh = text(saltmarshLane)
  expect(marsh).toMatch(/LOCKED off: 37·39 Solar on the shed/)
  expect(marsh).toMatch(/Oxygen concentrator: never on this alone/)
  expect(marsh).toMatch(/start it when the battery is down to \d+%/)
  expect(marsh).toMatch(/IN SUMMER/)
  const told = applied(millStreet, { op: 'setHookup', facts: { utilityTold: true } })
  expect(text(told)).toMatch(/The indicator ahead of the main lights up/)
})

test('two breakers with one handle go together: the other is named, and what rests keeps both waiting', () => {
  const tie = (other: string) => ({ with: other, kind: 'handle' as const })
  const [panel] = millStreet.panels
  if (!panel) throw new Error('no panel')
  const circuits = panel.circuits.map(c =>
    c.id === 'c5' ? { ...c, tie: tie('c7') } : c.id === 'c7' ? { ...c, tie: tie('c5') } : c,
  )
  const card = cardFor({ ...millStreet, panels: [{ ...panel, circuits }] })
  expect(card.wrong).toEqual([])
  expect(card.to.at(-1)).toMatchObject({ each: ['5 Refrigerator (+ 7)'], waitMin: 5 })
  expect(card.leftOff.some(c => c.startsWith('7 '))).toBe(false)
  const lines = card.back.filter(l => l.say === 'breakersOn').flatMap(l => l.each)
  expect(lines).toEqual(expect.arrayContaining(['5 Refrigerator', '7 Furnace']))
})

test('a breaker that is to be locked off, on one handle with what lives: no card may be used', () => {
  const [panel] = millStreet.panels
  if (!panel) throw new Error('no panel')
  const tie = (other: string) => ({ with: other, kind: 'handle' as const })
  const circuits = panel.circuits.map(c =>
    c.id === 'c5'
      ? { ...c, tie: tie('c7') }
      : c.id === 'c7'
        ? { ...c, tie: tie('c5'), picked: false, lockedOff: true }
        : c,
  )
  const card = cardFor({ ...millStreet, panels: [{ ...panel, circuits }] })
  expect(card.wrong).toContainEqual({ what: 'comes on', of: '7 Furnace' })
  expect(cardText(cardIn('en', card))[0]).toMatch(/^DO NOT USE THIS CARD/)
})

test('where things are found, whom to call and the second way of a device stand on the card; blanks where nobody said', () => {
  expect(text(saltmarshLane)).toMatch(/Its second way, ready beforehand: ____/)
  const told = applied(saltmarshLane, {
    op: 'setHandOver',
    facts: {
      warranties: [],
      phone: '555 0100',
      secondWay: 'two cylinders in the hall',
      where: { source: 'garage, left', inlet: 'beside the meter' },
    },
  })
  const said = cardIn('es', cardFor(told))
  expect(said.call('Firm')).toBe('Llame a: Firm, 555 0100')
  expect(cardText(said).join('\n')).toMatch(
    /Traiga 2 × Weirgate 36 \(garage, left\).*primero a la entrada de la pared \(beside the meter\).*lista de antemano: two cylinders in the hall/s,
  )
})

test('the picture shows every breaker as it stands on the source', () => {
  const [panel] = cardFor(millStreet).drawings
  if (panel?.kind !== 'panel') throw new Error('no panel')
  const places = panel.rows.flat(2)
  const at = (label: string) => places.filter(p => p.label === label).map(p => [p.name, p.stands])
  expect(panel.main).toBe('off')
  expect(at('Refrigerator')).toEqual([['5', 'on']])
  expect(at('Range')).toEqual([
    ['2', 'locked'],
    ['4', 'locked'],
  ])
  expect(at('Lights')).toEqual([['11', 'off']])
  const [positions] = cardFor(alderHollow).drawings
  expect(positions).toMatchObject({
    kind: 'switch',
    places: [{ name: '1' }, { name: '2' }, { name: '3' }, {}, {}, {}],
  })
})

test('every card can be said in every language, and nothing of it is left in another', () => {
  for (const { job } of demoJobs)
    for (const language of languageKeys) {
      const said = cardIn(language, cardFor(job))
      expect(said.to.lines.length).toBeGreaterThan(2)
      expect(cardText(said).join(' ')).not.toMatch(/card\.|undefined|\{/)
    }
  expect(cardText(cardIn('es', cardFor(millStreet))).join('\n')).toMatch(
    /^PASAR AL VEHÍCULO\n1\. Mire afuera.*BLOQUEADO en OFF: 1·3 Clothes dryer, 2·4 Range y 15·17 Water heater/s,
  )
})
