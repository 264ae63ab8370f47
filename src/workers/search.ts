import type { Equipment } from '@/core/equipment'
import type { Job } from '@/core/job/schema'
import { type Crew, type SearchResult, search, searchSentence } from '@/core/search/search'
import { type Space, spaceOf, type Wishes } from '@/core/search/space'
import type { Stock } from '@/core/search/stock'
import { type Answer, perform, type Task } from '@/core/search/tasks'

/** A lead plans the search and hands out tasks through the page; hands do them. All know the same space. */
export type SearchAsk =
  | { kind: 'space'; job: Job; catalogue: Equipment[]; wishes: Wishes; stock: Stock }
  | { kind: 'lead'; seed: number; draws: number }
  | { kind: 'task'; batch: number; index: number; task: Task }
  | { kind: 'answers'; batch: number; answers: Answer[] }

export type SearchSay =
  | { kind: 'tasks'; batch: number; tasks: Task[] }
  | { kind: 'answer'; batch: number; index: number; answer: Answer }
  | { kind: 'progress'; done: number; what: string }
  | { kind: 'result'; result: SearchResult; sentence: string }
  | { kind: 'failed'; message: string }

let space: Space | null = null
const waiting = new Map<number, (answers: Answer[]) => void>()
let batches = 0
const say = (message: SearchSay) => postMessage(message)

const crew: Crew = tasks =>
  new Promise(resolve => {
    const batch = batches++
    waiting.set(batch, resolve)
    say({ kind: 'tasks', batch, tasks })
  })

addEventListener('message', ({ data }: MessageEvent<SearchAsk>) => {
  if (data.kind === 'space') space = spaceOf(data.job, data.catalogue, data.wishes, data.stock)
  else if (data.kind === 'answers') {
    waiting.get(data.batch)?.(data.answers)
    waiting.delete(data.batch)
  } else if (!space) say({ kind: 'failed', message: 'The search has no job to work on.' })
  else if (data.kind === 'task')
    say({ kind: 'answer', batch: data.batch, index: data.index, answer: perform(space, data.task) })
  else
    search(space, crew, {
      seed: data.seed,
      draws: data.draws,
      progress: (done, what) => say({ kind: 'progress', done, what }),
    }).then(
      result => say({ kind: 'result', result, sentence: searchSentence(result) }),
      (error: unknown) =>
        say({ kind: 'failed', message: error instanceof Error ? error.message : String(error) }),
    )
})
