import fc from 'fast-check'
import { circuit, job } from '../job/fixtures/jobs'
import { legOf } from './positions'
import { besideMain, roomFor } from './room'
import type { Circuit, Panel } from './schema'

const panel = (circuits: Circuit[], facts: Partial<Panel> = {}): Panel => {
  const [one] = job(circuits, { panel: facts }).panels
  if (!one) throw new Error('no panel')
  return one
}
const full = (but: number[] = []) =>
  Array.from({ length: 12 }, (_, i) => i + 1)
    .filter(n => !but.includes(n))
    .map(n => circuit(n))

test('two free, one above the other, are there; two apart come by one move; one alone is none', () => {
  expect(roomFor(panel(full([5, 7])), 2, 'anywhere')).toMatchObject({
    kind: 'there',
    spaces: [5, 7],
    free: 2,
  })
  expect(roomFor(panel(full([5, 8])), 2, 'anywhere')).toMatchObject({ kind: 'by moving', moves: [{}] })
  expect(roomFor(panel(full([5])), 2, 'anywhere')).toMatchObject({ kind: 'none', free: 1 })
  expect(roomFor(panel(full([5])), 1, 'anywhere')).toMatchObject({ kind: 'there', spaces: [5] })
})

test('beside the main means where the main is, and what stands there moves to its own leg where it can', () => {
  expect(besideMain({ feedsFrom: 'top', spaces: 12 })).toEqual([1, 2])
  expect(besideMain({ feedsFrom: 'bottom', spaces: 12 })).toEqual([9, 10])
  const room = roomFor(panel(full([9, 10, 11, 12])), 2, 'beside the main')
  if (room.kind !== 'by moving') throw new Error(room.kind)
  const p = panel(full([9, 10, 11, 12]))
  for (const { circuit: c, to } of room.moves) expect(legOf(p, to)).toBe(legOf(p, c.position))
})

test('a space that cannot be used is no room, and nothing is moved onto it', () => {
  expect(roomFor(panel(full([5, 7]), { unusable: [7] }), 2, 'anywhere')).toMatchObject({
    kind: 'none',
    free: 1,
  })
})

test('tandems would free half of what may become one, where the sticker lists the spaces', () => {
  expect(roomFor(panel(full(), { tandemSpaces: [9, 10, 11, 12] }), 2, 'anywhere')).toMatchObject({
    kind: 'none',
    tandems: 4,
  })
  const guarded = full().map(c => ({ ...c, protection: 'arc-fault' as const }))
  expect(roomFor(panel(guarded, { tandemSpaces: [9, 10] }), 2, 'anywhere').tandems).toBe(0)
})

test('property: the moves that are offered make the room: each goes to a free space of its own, none is lost', () => {
  fc.assert(
    fc.property(fc.subarray(Array.from({ length: 12 }, (_, i) => i + 1)), fc.boolean(), (free, atMain) => {
      const circuits = full(free)
      const p = panel(circuits)
      const room = roomFor(p, 2, atMain ? 'beside the main' : 'anywhere')
      if (room.kind === 'none') return
      const moved = new Map((room.kind === 'by moving' ? room.moves : []).map(m => [m.circuit.id, m.to]))
      const at = circuits.map(c => moved.get(c.id) ?? c.position)
      expect(new Set(at).size).toBe(circuits.length)
      for (const s of room.spaces) expect(at).not.toContain(s)
      const [upper = 0, lower = 0] = room.spaces
      expect(legOf(p, upper)).not.toBe(legOf(p, lower))
    }),
    { numRuns: 80 },
  )
})
