import type { CircuitState } from '@/core/assess/evaluate'
import type { Legs } from '@/core/assess/evaluated'
import type { Finding } from '@/core/checks/finding'
import type { Job } from '@/core/job/schema'
import type { Circuit, Panel } from '@/core/panel/schema'

/** What the inspector draws from, taken together so that it can be drawn a moment later. */
type Arrangement = NonNullable<Job['source']>['arrangement']

export interface View {
  circuit: Circuit | undefined
  panel: Panel
  job: Job
  findings: Finding[]
  states: CircuitState[]
  legs: Legs | null
  arrangement: Arrangement | undefined
}
