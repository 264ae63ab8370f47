import { statfs } from 'node:fs/promises'
import { unbound } from '../db/connection'
import { setting } from '../env'

export interface Health {
  ok: boolean
  database: 'answers' | 'silent'
  freeMegabytes: number | null
}

/** Below this nothing is written any more: the database needs room to go on, and to stop in order. */
const leastFreeMegabytes = () => setting('SPILLWAY_LEAST_FREE_MB') ?? 200

let looked: { at: number; free: number | null } = { at: 0, free: null }

/** Free space where the database lies, in MB; null where it cannot be told. Looked at every two seconds at most. */
export async function freeMegabytes(now = Date.now()): Promise<number | null> {
  const where = setting('SPILLWAY_DATA')
  if (!where) return null
  if (now - looked.at > 2000) {
    looked = { at: now, free: looked.free }
    const at = await statfs(where).catch(() => null)
    looked.free = at && (at.bavail * at.bsize) / 1e6
  }
  return looked.free
}

/** Whether there is room to write; where it cannot be told there is. */
export async function hasRoom(): Promise<boolean> {
  const free = await freeMegabytes()
  return free === null || free >= leastFreeMegabytes()
}

/** Whether this process and its database answer, within two seconds. */
export async function health(): Promise<Health> {
  const answer = unbound()
    .raw('select 1')
    .then(() => 'answers' as const)
    .catch(() => 'silent' as const)
  const late = new Promise<'silent'>(resolve => setTimeout(resolve, 2000, 'silent').unref())
  const [database, free] = [await Promise.race([answer, late]), await freeMegabytes()]
  return {
    ok: database === 'answers' && (await hasRoom()),
    database,
    freeMegabytes: free === null ? null : Math.round(free),
  }
}
