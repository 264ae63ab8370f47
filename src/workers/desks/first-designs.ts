import type { Equipment } from '@/core/equipment'
import { firstDesigns } from '@/core/first/designs'
import type { FirstDesigns } from '@/core/first/designs-text'
import type { Labour } from '@/core/hookup/labour'
import type { Job } from '@/core/job/schema'

/** Finds provisional designs for one first call after another. */
export const designing = () => ({
  find: (job: Job, catalogue: Equipment[], labour: Labour, rateUsd: number): Promise<FirstDesigns> =>
    firstDesigns(job, catalogue, { labour, rateUsd }),
})
export type Designing = ReturnType<typeof designing>
