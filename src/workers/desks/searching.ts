import type { ProxyMarked } from 'comlink'
import type { Equipment } from '@/core/equipment'
import type { Job } from '@/core/job/schema'
import { type SearchResult, searchSentence } from '@/core/search/front'
import { search } from '@/core/search/search'
import { type Space, spaceOf } from '@/core/search/space'
import type { Stock } from '@/core/search/stock'
import { perform, type Task, type TaskResult } from '@/core/search/tasks'
import type { Wishes } from '@/core/search/wishes'

type Crew = ((tasks: Task[]) => Promise<TaskResult[]>) & ProxyMarked
type Progress = ((done: number, what: string) => void) & ProxyMarked

/** A lead plans the search and has its tasks done by the crew that the page gives it; hands do them. All know the same space. */
export function searching() {
  let space: Space | null = null
  const known = (): Space => {
    if (!space) throw new Error('The search has no job to work on.')
    return space
  }
  return {
    know(job: Job, catalogue: Equipment[], wishes: Wishes, stock: Stock): void {
      space = spaceOf(job, catalogue, wishes, stock)
    },
    perform: (task: Task): TaskResult => perform(known(), task),
    async lead(
      seed: number,
      draws: number,
      crew: Crew,
      progress: Progress,
    ): Promise<{ result: SearchResult; sentence: string }> {
      const result = await search(known(), tasks => crew([...tasks]), {
        seed,
        draws,
        progress: (done, what) => void progress(done, what),
      })
      return { result, sentence: searchSentence(result) }
    },
  }
}
export type Searching = ReturnType<typeof searching>
