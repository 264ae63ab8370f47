import { houseOfJob } from '@/core/isolation/house'
import { type Cut, isolationOf, stillLive } from '@/core/isolation/isolate'
import { isolatedChanges } from '@/core/isolation/work'
import { print } from './io'
import { readJobFile } from './job'

/**
 * For every place of the house as planned: what is opened, locked and proven so that nothing makes it live, what stays live beside it, and what the main
 * alone would leave. The order of the work stands on it.
 */
export async function isolationOfFile(file: string): Promise<number> {
  const job = await readJobFile('isolation', file)
  if (!job) return 2
  const house = houseOfJob(job)
  const mains = house.handles.filter(h => h.kind === 'main').map(h => h.id)
  print({
    supplies: house.supplies.map(({ name, kind, byItself }) => ({ name, kind, byItself })),
    places: house.places.map(place => {
      const { cuts, uncut, staysLive } = isolationOf(house, place.id)
      const wrong = stillLive(house, place.id, mains)
      return {
        place: place.name,
        within: place.within,
        open: opened(cuts),
        cannotBeCutOff: uncut.map(s => s.name),
        staysLive: staysLive.map(p => p.name),
        withMainsOff: { live: wrong.now.map(s => s.name), couldBecome: wrong.could.map(s => s.name) },
      }
    }),
    changes: isolatedChanges(job).map(({ text, places, cuts, uncut, staysLive, mainsOnly }) => ({
      change: text,
      meets: places.map(p => p.name),
      open: opened(cuts),
      cannotBeCutOff: uncut.map(s => s.name),
      staysLive: staysLive.map(p => p.name),
      withMainsOff: { live: mainsOnly.now.map(s => s.name), couldBecome: mainsOnly.could.map(s => s.name) },
    })),
  })
  return 0
}

const opened = (cuts: readonly Cut[]) =>
  [...new Map(cuts.map(c => [c.handle.id, c])).values()].map(({ handle, setting }) => ({
    handle: handle.name,
    setting,
    lock: handle.lock,
    keepsAway: cuts.filter(c => c.handle.id === handle.id).map(c => c.supply.name),
  }))
