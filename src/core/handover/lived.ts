import type { Visit } from '../job/visits'
import { quantity } from '../units/format'

/** What was lived through against what was worked out. */
export function livedText({ hours, carried, predictedH }: NonNullable<Visit['lived']>): string {
  const lived = `${quantity(hours, 'h')}, it carried ${carried}`
  if (predictedH === null) return `${lived}; nothing was worked out: the source stores nothing.`
  const said = `a full store was worked out to last ${quantity(predictedH, 'h')}`
  if (carried === 'all of it')
    return hours > predictedH
      ? `${lived}; ${said}: longer than that. The loads drew less than planned, or it was charged meanwhile.`
      : `${lived}; ${said}: as it should be.`
  return hours <= predictedH
    ? `${lived}; ${said}: it should have. Look at what was on, at the charge when it began, and at the capacity test.`
    : `${lived}; ${said}: longer than it can.`
}
