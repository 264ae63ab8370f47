import { hash, verify } from '@node-rs/argon2'
import { ZxcvbnFactory } from '@zxcvbn-ts/core'
import { adjacencyGraphs, dictionary } from '@zxcvbn-ts/language-common'
import { Semaphore } from 'async-mutex'

/** argon2id as RFC 9106 (4) has it where memory is short: 64 MiB, three passes; the algorithm is the package’s default. */
const cost = { memoryCost: 65_536, timeCost: 3, parallelism: 1 } as const

/** More at once would take the memory and the processors of everybody else. */
const atOnce = new Semaphore(2)

export const hashPassword = (password: string): Promise<string> =>
  atOnce.runExclusive(() => hash(password.normalize('NFKC'), cost))

export const verifyPassword = ({
  hash: kept,
  password,
}: {
  hash: string
  password: string
}): Promise<boolean> => atOnce.runExclusive(() => verify(kept, password.normalize('NFKC')))

export const passwordLength = { least: 10, most: 128 } as const

const guesser = new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs })

/**
 * What is wrong with a password that somebody wants, or null. What is known of the person counts as guessed; `guesses` below a
 * hundred million fall to whoever holds a stolen hash for an afternoon.
 */
export function weakness(password: string, known: readonly string[]): string | null {
  if ([...password].length < passwordLength.least)
    return `must have ${passwordLength.least} letters or more: four words that nobody would put together do well`
  if (password.length > passwordLength.most) return `may have ${passwordLength.most} letters at most`
  const { guesses } = guesser.check(password.slice(0, 72), [...known, 'spillway'])
  return guesses < 1e8
    ? 'is among those that are tried first: four words that nobody would put together do well'
    : null
}
