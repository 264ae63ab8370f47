import { connectorOf, isReceptacle, mates, type ReceptacleType } from '../units/tables/receptacles'

/** Whether an adapter from a receptacle to a plug that does not mate may exist, and what to mind. */
export type Adapter =
  | { may: 'exist'; advice: string }
  | { may: 'exist with its own breaker'; advice: string }
  | { may: 'exist with both legs tied'; advice: string }
  | { may: 'not exist'; advice: string }

/**
 * The adapter between a receptacle and a plug that it does not take. A voltage that the receptacle has no conductor for
 * cannot be made by an adapter; an outlet larger than the plug leaves it without protection of its size.
 * Source: conductors of the configurations; NEC 210.21(B) and 240.5 (cords protected by their ampacity).
 */
export function adapterBetween(receptacle: ReceptacleType, plug: string): Adapter {
  const from = connectorOf(receptacle)
  const to = connectorOf(plug)
  const name = `${receptacle} plug to ${plug} receptacle`
  if (!from || !to)
    return { may: 'not exist', advice: `nobody here knows a ${plug}: read the type off the plug` }
  if (to.neutral && !from.neutral)
    return {
      may: 'not exist',
      advice: `no adapter may exist: ${receptacle} has no neutral to make 120 V from`,
    }
  if (to.volts === '240' && from.hots === 1)
    return {
      may: 'not exist',
      advice: `no adapter may exist: ${receptacle} has one hot and never gives 240 V`,
    }
  if (from.amps > to.amps)
    return {
      may: 'exist with its own breaker',
      advice: `a ${name} adapter needs a ${to.amps} A breaker of its own: the ${from.amps} A outlet does not protect the smaller cord`,
    }
  if (to.volts === '120/240' && from.hots === 1)
    return {
      may: 'exist with both legs tied',
      advice: `a ${name} adapter ties both legs together: 120 V circuits only, nothing at 240 V, and shared neutrals add`,
    }
  return { may: 'exist', advice: `a listed ${name} adapter joins them` }
}

/** Whether a plug goes into what stands before it; if not, the sentence that helps. Undefined before: bare wire. */
export function mating(
  before: string | undefined,
  plug: string,
): { mates: true } | { mates: false; message: string } {
  if (before === undefined)
    return {
      mates: false,
      message: `a ${plug} plug needs a receptacle before it, and what stands there ends in bare wire`,
    }
  if (!isReceptacle(before))
    return { mates: false, message: `a ${plug} plug needs a receptacle before it; ${before} is a plug` }
  if (mates(before, plug)) return { mates: true }
  return {
    mates: false,
    message: `a ${plug} plug does not go into a ${before} receptacle: ${adapterBetween(before, plug).advice}`,
  }
}
