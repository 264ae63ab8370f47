import type { Operation } from '@/core/job/operations'

/** A change made here that the server has not confirmed yet. */
export type Pending = { id: string; sentence: string } & (
  | { kind: 'do'; operation: Operation }
  | { kind: 'undo' }
  | { kind: 'redo' }
)
