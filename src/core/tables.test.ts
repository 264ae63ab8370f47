/** Tables of facts: a new row is all that a new chemistry, edition, motor, breaker, connector or method takes; here it fails where it is not whole. */
import { compareMethods } from './assess/compare-methods'
import { evaluate } from './assess/evaluate'
import { editionFacts, editions, factsOfEdition } from './editions'
import { chemistries, factsOfChemistry } from './equipment/chemistries'
import { adapterBetween, mating } from './hookup/connectors'
import { usualLabour } from './hookup/labour'
import { methodIds, methodOf } from './hookup/method'
import { readEntry } from './job/entry'
import { circuit, job, load } from './job/fixtures/jobs'
import { protectionIds, protections, protectionTyped } from './panel/protection'
import { circuitSchema } from './panel/schema'
import { conductorSizes } from './units/tables/conductors'
import { conduitKinds, conduits, tradeSizes } from './units/tables/conduit'
import { connectorOf, plugTypes, receptacles, receptacleTypes } from './units/tables/receptacles'
import { partKinds } from './work/parts/line'
import { kindsOfWork, usualMinutes, worksKnown } from './work/parts/tasks'
import { raceways } from './work/wiring/raceways'
import { areaOf, connectorFor } from './work/wiring/splices'

describe.each(methodIds.map(id => [id, methodOf(id)] as const))('method %s', (id, method) => {
  test('says what it is, how it is made, and what is strong and weak in it', () => {
    expect(method.name.length).toBeGreaterThan(5)
    expect(method.short.length).toBeGreaterThan(3)
    if (id === 'undecided' || id === 'backfeed-unprotected') return
    for (const words of [method.how, method.strong, method.weak]) expect(words.length).toBeGreaterThan(3)
    expect(method.how).toMatch(/\.$/)
  })

  test('has hours of labour and a price of parts, both running upwards, where it may be planned', () => {
    if (id === 'undecided' || id === 'backfeed-unprotected') return
    expect(method.hours && method.hours.least <= method.hours.most).toBe(true)
    expect(method.parts && method.parts.least <= method.parts.most).toBe(true)
    expect(usualLabour.tasks.map(t => t.method)).toContain(id)
    // what comes on by itself asks nobody to do anything
    expect(Boolean(method.steps?.length)).toBe(!method.automatic)
  })

  test('can be chosen on a house: every figure and finding is computed', () => {
    const chosen = job([circuit(1, { loads: [load(300)] }), circuit(2, { poles: 2 })], {
      hookup: { method: id, bondingPlug: false },
    })
    expect(evaluate(chosen).balance.length).toBeGreaterThan(3)
  })
})

test('every method that may be planned is compared', () => {
  const compared = compareMethods(job([circuit(1)]), []).map(m => m.method)
  expect(compared.sort()).toEqual(
    methodIds.filter(m => m !== 'undecided' && m !== 'backfeed-unprotected').sort(),
  )
})

describe.each(receptacleTypes)('receptacle %s', type => {
  const { accepts, hots, volts, neutral, amps } = receptacles[type]
  test('takes only plugs that are known, of its own volts, and of no more amps', () => {
    expect(accepts.length).toBeGreaterThan(0)
    for (const plug of accepts) {
      expect(plugTypes).toContain(plug)
      expect(connectorOf(plug)).toMatchObject({ volts, hots })
      expect(connectorOf(plug)?.amps).toBeLessThanOrEqual(amps)
      expect(mating(type, plug)).toEqual({ mates: true })
    }
  })
  test('its conductors give its volts', () => {
    expect(hots).toBe(volts === '120' ? 1 : 2)
    expect(neutral).toBe(volts !== '240')
  })
  test('to every other plug an adapter is judged, and never makes what the receptacle has no conductor for', () => {
    for (const plug of plugTypes) {
      const { may, advice } = adapterBetween(type, plug)
      expect(advice.length).toBeGreaterThan(10)
      const to = connectorOf(plug)
      if (to?.neutral && !neutral) expect(may).toBe('not exist')
      if (to?.volts === '240' && hots === 1) expect(may).toBe('not exist')
      if (may === 'exist') expect(amps).toBeLessThanOrEqual(to?.amps ?? 0)
    }
    expect(adapterBetween(type, 'nothing').may).toBe('not exist')
  })
})

test('a plug into bare wire, into a plug, into what does not take it: told in words', () => {
  const message = (before: string | undefined, plug: string) => {
    const told = mating(before, plug)
    return told.mates ? '' : told.message
  }
  expect(message(undefined, 'L14-30')).toMatch(/ends in bare wire/)
  expect(message('6-15', '6-15')).toMatch(/6-15 is a plug/)
  expect(message('TT-30', 'L14-30')).toMatch(/does not go into a TT-30 receptacle: .*ties both legs/)
})

describe.each(protectionIds)('breaker protection %s', id => {
  const { mark, shown, article, comparesNeutral } = protections[id]
  test('has its words, is read from a directory by its mark, and the document takes it', () => {
    expect(shown && article).toBeTruthy()
    expect(circuitSchema.safeParse(circuit(1, { protection: id })).success).toBe(true)
    if (!mark) return
    expect(protectionTyped(mark.toLowerCase())).toBe(id)
    expect(readEntry(`1 20 Kitchen ${mark}`)).toMatchObject({ entry: { protection: id, label: 'Kitchen' } })
  })
  test('where it weighs hot against neutral, a hot led away alone is a stop that names it', () => {
    const led = job([circuit(1, { label: 'Bath', protection: id, loads: [load(100)] })], {
      hookup: { method: 'multi-circuit-switch', bondingPlug: false, neutrals: 'stay behind' },
    })
    const left = evaluate(led).findings.find(f => f.id === 'neutral.left-behind')
    expect(left?.severity).toBe(comparesNeutral ? 'stop' : undefined)
    if (left) expect(left.sentence).toContain(`1 Bath (${mark})`)
  })
})

test('every edition names its moved articles by figures and says of each fact what it rules', () => {
  expect(editions).toEqual([...editions].sort())
  for (const edition of editions) {
    expect(Object.keys(editionFacts[edition]).sort()).toEqual(Object.keys(editionFacts[2020]).sort())
    for (const [here, there] of Object.entries(factsOfEdition(edition).moved)) {
      expect(here).toMatch(/^\d{3}\.\d+/)
      expect(there).not.toBe(here)
    }
  }
})

test.each(chemistries)(
  'chemistry %s: less is left the colder it is, lead loses more by its rate than lithium',
  id => {
    const facts = factsOfChemistry(id)
    expect(facts?.name).toBeTruthy()
    expect(facts && facts.atMinus20 < facts.atZero && facts.atZero < 1).toBe(true)
    expect(facts?.peukert).toBeGreaterThanOrEqual(1)
    // what may not be charged in the cold says what happens then
    expect(facts?.chargeAboveC !== undefined).toBe(facts?.chargedCold !== undefined)
  },
)

describe.each(conduitKinds)('raceway %s', kind => {
  const { name, article, firstFt, freeFt, everyFt } = raceways[kind]
  test('is named, held by an article, and closer together than it reaches', () => {
    expect(name.length).toBeGreaterThan(2)
    expect(article).toMatch(/^3\d\d\.30$/)
    for (const size of tradeSizes) expect(everyFt(size)).toBeGreaterThanOrEqual(firstFt)
    expect(freeFt).toBeLessThanOrEqual(3 * firstFt)
    expect(conduits.map(c => c.tradeSize)).toEqual([...tradeSizes])
  })
})

describe.each(worksKnown)('work %s', work => {
  const { name, tools, people, firstMin, eachMin } = kindsOfWork[work]
  test('takes time, tools and hands', () => {
    expect(name.length).toBeGreaterThan(5)
    expect(tools.length).toBeGreaterThan(0)
    expect(new Set(tools).size).toBe(tools.length)
    expect([1, 2]).toContain(people)
    expect(firstMin).toBeGreaterThan(0)
    expect(eachMin).toBeLessThanOrEqual(firstMin)
    expect(usualMinutes).toContainEqual({ work, firstMin, eachMin })
  })
})

test('kinds of parts are named once each, and waste is a share', () => {
  const kinds = Object.values(partKinds)
  expect(new Set(kinds.map(k => k.name)).size).toBe(kinds.length)
  for (const { wasteFraction } of kinds) expect(wasteFraction >= 0 && wasteFraction < 1).toBe(true)
})

test.each(
  conductorSizes.flatMap(size => (['twist-on', 'lever'] as const).map(school => [size, school] as const)),
)(
  'two wires of %s are joined by something, %s where it reaches, and aluminum by what is listed for it',
  (size, school) => {
    const two = (material: 'cu' | 'al') => [
      { size, material },
      { size, material: 'cu' as const },
    ]
    const reaches = conductorSizes.indexOf(size) <= conductorSizes.indexOf('1/0')
    const copper = connectorFor(two('cu'), school)
    expect(copper !== null).toBe(reaches)
    if (!copper) return
    expect(areaOf(copper.key)).toBeGreaterThan(0)
    expect(copper.school === school || copper.bothMetals).toBe(true)
    expect(connectorFor(two('al'), school)?.bothMetals).toBe(true)
  },
)
