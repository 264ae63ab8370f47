import pino from 'pino'
import { answering } from './http/trouble'

/** The server's log: a line of JSON for each event, on standard output; the start command keeps and rotates them. */
export const log = pino({
  base: undefined,
  mixin: () => {
    const requestId = answering.getStore()?.requestId
    return requestId ? { requestId } : {}
  },
  timestamp: pino.stdTimeFunctions.isoTime,
  level: process.env.NODE_ENV === 'test' ? 'silent' : 'info',
})
