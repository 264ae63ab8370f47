import fc from 'fast-check'
import { faultPaths, result } from '../fixtures/calculating'
import { receptacleTypes } from '../units/tables/receptacles'
import { adapterBetween } from './connectors'
import { cordChain } from './cord-chain'

const chain = {
  outlet: { type: 'L14-30' },
  links: [
    { kind: 'cord', from: 'L14-30', to: 'L14-30', ratingA: 30, size: '10', lengthFt: 25 },
    { kind: 'inlet', from: 'L14-30', ratingA: 30 },
    { kind: 'wire', ratingA: 30, size: '10', lengthFt: 40 },
    { kind: 'breaker', ratingA: 30 },
  ],
  sourceV: 240,
}
const codes = (given: object) => result(cordChain, given).faults.map(f => [f.at, f.code])

test('a thirty-amp chain by hand: nearest the source on a tie, 80 % for hours on end, drop over both lengths', () => {
  const r = result(cordChain, chain)
  expect(r).toMatchObject({ limitA: 30, limitedBy: -1, continuousA: 24, faults: [] })
  // 2 × (25 + 40) ÷ 1000 × 1.24 = 0.1612 Ω; × 24 A = 3.8688 V; ÷ 240
  expect(r.dropV).toBeCloseTo(3.8688, 12)
  expect(r.dropFraction).toBeCloseTo(3.8688 / 240, 12)
  const short = result(cordChain, { ...chain, continuous: false, loadA: 10 })
  expect(short.continuousA).toBe(30)
  expect(short.dropV).toBeCloseTo(1.612, 12)
})

test('a connector limits its link to its own amps, and an outlet’s own limit counts', () => {
  const links = [
    { kind: 'adapter', from: 'L14-30', to: 'L5-15', ratingA: 30 },
    { kind: 'wire', ratingA: 20 },
  ]
  expect(result(cordChain, { outlet: { type: 'L14-30' }, links, sourceV: 120 })).toMatchObject({
    limitA: 15,
    limitedBy: 0,
  })
  expect(result(cordChain, { ...chain, outlet: { type: 'L14-30', limitA: 25 } })).toMatchObject({
    limitA: 25,
    limitedBy: -1,
  })
})

test('findings stand in order from the source, several at one place', () => {
  const links = [
    { kind: 'cord', from: '14-50', to: '5-20', ratingA: 30, size: '14', lengthFt: 10 },
    { kind: 'wire', ratingA: 30, size: '12' },
    { kind: 'inlet', from: 'L14-30', ratingA: 30 },
  ]
  // 14 AWG cord carries 18 A; 12 AWG wire 20 A; nothing before the inlet's plug; 5-20 carries 120 V only and 20 A
  expect(codes({ ...chain, links, loadA: 21 })).toEqual([
    [0, 'no-mate'],
    [0, 'undersized'],
    [0, 'no-240'],
    [0, 'overload'],
    [1, 'undersized'],
    [2, 'no-mate'],
  ])
})

test('a 120 V outlet gives no 240 V; a connector without neutral no 120 V', () => {
  const wire = [{ kind: 'wire', ratingA: 15 }]
  expect(codes({ outlet: { type: 'TT-30' }, links: wire, sourceV: 240 })).toEqual([[-1, 'no-240']])
  expect(codes({ outlet: { type: 'L6-30' }, links: wire, sourceV: 120 })).toEqual([[-1, 'no-120']])
  const into620 = [{ kind: 'cord', from: '6-15', ratingA: 20 }]
  expect(result(cordChain, { outlet: { type: '6-20' }, links: into620, sourceV: 240 })).toMatchObject({
    limitA: 15,
    faults: [],
  })
})

test('a plug that does not mate names the adapter, or says that none may exist', () => {
  const message = (type: string, from: string) =>
    result(cordChain, {
      ...chain,
      outlet: { type },
      links: [{ kind: 'cord', from, ratingA: 10 }],
      sourceV: 120,
    }).faults.find(f => f.code === 'no-mate')?.message
  expect(message('14-30', 'L14-30')).toMatch(/14-30 plug to L14-30 receptacle adapter/)
  expect(message('TT-30', 'L14-30')).toMatch(/ties both legs/)
  expect(message('14-50', '5-15')).toMatch(/15 A breaker of its own/)
  expect(message('L6-30', '5-20')).toMatch(/no adapter may exist/)
  expect(message('TT-30', 'L6-30')).toMatch(/never gives 240 V/)
})

test('no adapter makes a voltage that the receptacle has no conductor for', () => {
  for (const from of receptacleTypes)
    for (const to of receptacleTypes) {
      const { may } = adapterBetween(from, to)
      if (from.includes('6-') && !to.includes('6-')) expect(may).toBe('not exist')
      if (to.includes('6-') && (from.startsWith('5') || from.startsWith('L5'))) expect(may).toBe('not exist')
    }
})

test('refuses on the key at fault', () => {
  const paths = (link: object, outlet = 'L14-30') =>
    faultPaths(cordChain, {
      ...chain,
      outlet: { type: outlet },
      links: [{ kind: 'cord', ratingA: 30, ...link }],
    })
  expect(paths({}, 'L14-31')).toEqual(['outlet.type'])
  expect(paths({ from: 'X' })).toEqual(['links[0].from'])
  expect(paths({ to: '6-15' })).toEqual(['links[0].to'])
  expect(paths({ size: '3' })).toEqual(['links[0].size'])
  expect(paths({ size: '10', material: 'al' })).toEqual(['links[0].material'])
  expect(paths({ kind: 'wire', size: '14', material: 'al' })).toEqual(['links[0].size'])
  expect(faultPaths(cordChain, { ...chain, links: [] })).toEqual(['links'])
  expect(faultPaths(cordChain, { ...chain, sourceV: 208 })).toEqual(['sourceV'])
})

test('a further link never raises what the chain carries', () => {
  fc.assert(
    fc.property(fc.double({ min: 1, max: 60, noNaN: true }), ratingA => {
      const longer = { ...chain, links: [...chain.links, { kind: 'breaker', ratingA }] }
      expect(result(cordChain, longer).limitA).toBe(Math.min(30, ratingA))
    }),
  )
})
