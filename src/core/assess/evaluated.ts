import type { Job } from '../job/schema'
import type { Working } from '../working'
import type { Figures } from './balance'
import type { CircuitNeed } from './needs'
import type { Request } from './requests'

/** Amps on each leg and in the neutral, with their working. */
export interface Legs {
  L1A: number
  L2A: number
  neutralA: number
  imbalanceFraction: number
  working: Working
}

/** What every check looks at: the job, and the figures computed from it once. */
export interface Evaluated {
  job: Job
  needs: CircuitNeed[]
  /** what is to be sent or found out */
  requests: Request[]
  figures: Figures
  legs: Legs | null
  /** planned changes that this house does not bear, in words */
  hindered: { id: string; text: string; why: string; circuitIds: string[] }[]
}
