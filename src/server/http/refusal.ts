import { bounded, type Fault } from '@/core/outcome'

/** An answer that is not the data: its status, a sentence for the person, the faults by field, and headers that go with it. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly faults: Fault[] = [],
    readonly headers: Record<string, string> = {},
  ) {
    super(message)
  }
}

export const refuse = (status: number, message: string, faults: Fault[] = []): never => {
  throw new Refusal(status, message, bounded(faults))
}

/** Too many tries: told with how long to wait. */
export const refuseForNow = (seconds: number): never => {
  const words = seconds < 90 ? `${seconds} seconds` : `${Math.ceil(seconds / 60)} minutes`
  throw new Refusal(429, `That was tried too often: wait ${words}, then try again.`, [], {
    'retry-after': String(seconds),
  })
}
