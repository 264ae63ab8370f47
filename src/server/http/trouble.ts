import { AsyncLocalStorage } from 'node:async_hooks'

export type Trouble = 'away' | 'pictures' | 'busy' | 'full'

/** What a person is told, and the status that goes with it. */
export const troubleWords: Record<Trouble, { status: number; sentence: string }> = {
  away: { status: 503, sentence: 'The database cannot be reached just now; nothing was written.' },
  pictures: {
    status: 503,
    sentence: 'The photographs cannot be reached just now; everything else can. Try again in a moment.',
  },
  busy: {
    status: 503,
    sentence: 'Spillway is busy just now; nothing was written. Try again in a moment.',
  },
  full: {
    status: 507,
    sentence:
      'The disk of the server is full: what is there can be read, nothing can be written. Free some space on it.',
  },
}

/** What the page being rendered met with; shared by the server around the pages and the code inside them. */
interface Answering {
  trouble: Trouble | null
  /** by which the log tells what belongs together */
  requestId?: string
}
const shared = globalThis as { spillwayAnswer?: AsyncLocalStorage<Answering> }
shared.spillwayAnswer ??= new AsyncLocalStorage()
export const answering: AsyncLocalStorage<Answering> = shared.spillwayAnswer

/** Marks the answer that is being made. */
export function markAnswer(trouble: Trouble): void {
  const at = answering.getStore()
  if (at) at.trouble = trouble
}
