import { circuit, job } from '../job/fixtures/jobs'
import type { Circuit } from '../panel/schema'
import { carriedBy, eligibilityOf } from './eligibility'
import { circuitNeeds } from './needs'

const told = (circuits: Circuit[], id = circuits[0]?.id) => {
  const needs = circuitNeeds(job(circuits))
  const need = needs.find(n => n.circuit.id === id)
  if (!need) throw new Error('no such circuit')
  return Object.fromEntries(eligibilityOf(need, needs).map(v => [v.key, v]))
}
const answers = (circuits: Circuit[]) => Object.values(told(circuits)).map(v => v.answer)

test('a plain circuit on L1 is carried by all but the other leg alone', () => {
  expect(answers([circuit(1)])).toEqual(['yes', 'no', 'yes', 'yes'])
  expect(told([circuit(1)])['one-leg L2']?.reasons).toEqual([
    'it is on L1, which stays dead; moving its breaker cures it',
  ])
  expect(answers([circuit(3)])).toEqual(['no', 'yes', 'yes', 'yes'])
})

test('a two-pole circuit lives under split phase alone, and says why elsewhere', () => {
  const by = told([circuit(1, { poles: 2 })])
  expect(Object.values(by).map(v => v.answer)).toEqual(['no', 'no', 'no', 'yes'])
  expect(by['one-leg L1']?.reasons[0]).toMatch(/links the dead leg to the live one/)
  expect(by.tied?.reasons[0]).toMatch(/needs 240 V, and both legs are the same/)
})

test('halves of a shared neutral: tied legs add the currents, one leg darkens the partner, split phase keeps them together', () => {
  const by = told([
    circuit(1, { neutral: { kind: 'shared', with: 'c3' } }),
    circuit(3, { neutral: { kind: 'shared', with: 'c1' } }),
  ])
  expect(by.tied).toMatchObject({
    answer: 'with care',
    reasons: [expect.stringMatching(/currents add/)],
  })
  expect(by['one-leg L1']?.reasons[0]).toMatch(/stays dark: move both hots or neither/)
  expect(by['split-phase']?.reasons[0]).toMatch(/keep both together/)
  const same = told([
    circuit(1, { neutral: { kind: 'shared', with: 'c2' } }),
    circuit(2, { neutral: { kind: 'shared', with: 'c1' } }),
  ])
  expect(same['split-phase']?.reasons[0]).toMatch(/on the same leg: their currents add/)
})

test.each<[string, Partial<Circuit>, RegExp]>([
  ['a neutral nobody looked at', { neutral: { kind: 'unknown' } }, /its own is not known/],
  ['an arc-fault breaker', { protection: 'arc-fault' }, /AFCI .*both must follow/],
  ['a ground-fault breaker', { protection: 'ground-fault' }, /GFCI .*both must follow/],
  ['one trip for two', { tie: { kind: 'common trip', with: ['c9'] } as never }, /one trip opens it/],
  ['what feeds in', { purpose: 'solar' }, /has to stay off/],
  ['what nobody traced', { traced: undefined as never }, /no one has seen it die/],
])('%s is carried with care', (_, facts, why) => {
  expect(told([circuit(1, facts)])['split-phase']).toMatchObject({
    answer: 'with care',
    reasons: [expect.stringMatching(why)],
  })
})

test('of the picked circuits each arrangement tells how many it carries, and which not', () => {
  const needs = circuitNeeds(
    job([circuit(1), circuit(3), circuit(2, { poles: 2, label: 'Range' }), circuit(5, { picked: false })]),
  )
  expect(carriedBy(needs).map(({ key, carried, of }) => [key, carried, of])).toEqual([
    ['one-leg L1', 1, 3],
    ['one-leg L2', 1, 3],
    ['tied', 2, 3],
    ['split-phase', 3, 3],
  ])
  expect(carriedBy(needs)[2]?.not).toEqual(['2·4 Range'])
})
