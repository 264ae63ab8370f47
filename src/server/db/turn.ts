import { Mutex, type MutexInterface, withTimeout } from 'async-mutex'
import { Busy } from './connection'

const longestWaitMs = 4000
/** More than this many who wait for one thing are told at once: they must not fill the lane of those who wait for nothing. */
const mostWaiting = 24

const turns = new Map<string, { mutex: MutexInterface; waiting: number }>()

/**
 * One at a time, in this process, of those who write the same thing. A job whose row somebody holds then costs the pool one
 * connection, not all of them, and delays nobody else. Throws `Busy` after four seconds, or where too many wait already.
 */
export async function inTurn<T>(key: string, work: () => Promise<T>): Promise<T> {
  const turn = turns.get(key) ?? {
    mutex: withTimeout(
      new Mutex() as MutexInterface,
      longestWaitMs,
      new Busy('somebody else is writing this'),
    ),
    waiting: 0,
  }
  if (turn.waiting >= mostWaiting) throw new Busy('too many write this at once')
  turns.set(key, turn)
  turn.waiting++
  try {
    return await turn.mutex.runExclusive(work)
  } finally {
    turn.waiting--
    if (!turn.waiting) turns.delete(key)
  }
}
