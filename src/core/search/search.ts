import { bound } from './bounds'
import { type Found, frontOf, leftOutOf, type SearchResult } from './front'
import { race } from './race'
import { racersOf } from './rules'
import type { Space } from './space'
import type { Crew, KinChecked } from './tasks'

export interface SearchOptions {
  seed?: number
  draws?: number
  /** told after each part of the work, 0 to 1, with what is being done */
  progress?: (done: number, what: string) => void
}

/**
 * The cheapest design that lasts: generate (space), drop what a check or a wish forbids (rules), decide what closed form knows
 * for sure (bounds), race what is left under the same chances (race), and say why for what is left out (front). Tasks are
 * handed to whoever runs them; the answer is the same whoever does.
 */
export async function search(
  space: Space,
  crew: Crew,
  { seed = 1, draws = 200, progress = () => {} }: SearchOptions = {},
): Promise<SearchResult> {
  progress(0, 'Checks')
  const checks = await runChecks(space, crew)
  const { racers, dropped, always, allowed } = racersOf(space, checks, draws)
  const result = (
    front: Found[],
    { bounded, simulated, finals }: Pick<SearchResult, 'bounded' | 'simulated' | 'finals'>,
  ): SearchResult => ({
    raw: space.raw,
    allowed,
    bounded,
    simulated,
    finals,
    draws,
    seed,
    front,
    dropped,
    always,
    leftOut: leftOutOf(space, racers, front, dropped, checks),
  })
  if (!racers.length) return result([], { bounded: 0, simulated: 0, finals: 0 })
  progress(0.3, 'Bounds')
  await bound(space, crew, racers, seed, draws)
  const raced = await race(space, crew, racers, { seed, draws, progress })
  progress(1, 'Done')
  return result(frontOf(space, raced.alive, draws, checks), raced)
}

async function runChecks(space: Space, crew: Crew): Promise<Map<number, KinChecked>> {
  // by unit: what modules do is asked once for each
  const byUnit = new Map<string, number[]>()
  for (const kin of space.kins) {
    const key = space.heads[kin]?.source.units[0]?.equipment.id ?? ''
    byUnit.set(key, [...(byUnit.get(key) ?? []), kin])
  }
  const answers = await crew([...byUnit.values()].map(kins => ({ kind: 'checks', kins })))
  return new Map(answers.flatMap(a => (a.kind === 'checks' ? a.kins.map(k => [k.kin, k] as const) : [])))
}
