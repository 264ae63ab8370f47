import type { IntervalSeries } from '@/core/loads/intervals'
import type { Summed } from '@/core/loads/utility-year'

/** One meter of a utility's file, and what its intervals come to. */
export interface MeterAbout {
  id: string
  flow: IntervalSeries['flow']
  count: number
  totalWh: number
  summed: Summed | null
}
