import { refuse } from '@/server/http/handle'
import type { Done } from '@/server/people/firms'

/** Goes on where something was done about people; else says why not. */
export function done(outcome: Done, sentence: string): void {
  if (outcome === 'gone') refuse(404, 'That is not there any more: the list was changed meanwhile.')
  if (typeof outcome === 'object') refuse(400, sentence, outcome.faults)
}
