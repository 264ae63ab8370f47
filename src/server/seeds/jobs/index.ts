import { alderHollow } from './alder-hollow'
import { fernbrook } from './fernbrook'
import { millStreet } from './mill-street'
import { ospreyPoint } from './osprey-point'
import { quarryRidge } from './quarry-ridge'
import { saltmarshLane } from './saltmarsh-lane'

export { alderHollow, fernbrook, millStreet, ospreyPoint, quarryRidge, saltmarshLane }

/** The demo jobs, one for each school of the trade. */
export const demoJobs = [alderHollow, saltmarshLane, quarryRidge, millStreet, fernbrook, ospreyPoint].map(
  (job, i) => ({
    id: `5a1de000-0000-4000-8000-${String(i + 1).padStart(12, '0')}`,
    job,
  }),
)
