import type { Operation } from '@/core/job/operations'
import type { Job } from '@/core/job/schema'

/** A job as the server hands it over. */
export interface JobRecord {
  id: string
  job: Job
  revision: number
  undo: string | null
  redo: string | null
  archived: boolean
}

/** Someone else's change, as one line. */
export interface Revision {
  revision: number
  sentence: string
  person: string
  at: string
}

/** A change made here that the server has not confirmed yet. */
export type Pending = { id: string; sentence: string } & (
  | { kind: 'do'; operation: Operation }
  | { kind: 'undo' }
  | { kind: 'redo' }
)
