import { bare } from '../panel/schema'
import { formatVersion, type Job } from './schema'

/** What a person gives to open a job; everything else starts empty or at its usual value. */
export interface NewJob {
  title: string
  place: string
  spaces: number
  mainA: number
}

/** An empty job: panel without breakers, no source, a day's outage with a tenth kept in reserve. */
export const newJob = ({ title, place, spaces, mainA }: NewJob): Job => ({
  formatVersion,
  title,
  place,
  edition: 2020,
  step: 'ask',
  brief: { wants: [] },
  requests: [],
  photos: [],
  panels: [bare('main', 'Main panel', spaces, mainA)],
  hookup: { method: 'undecided', bondingPlug: false },
  planned: [],
  outage: { hours: 24, startFraction: 1, reserveFraction: 0.1, deratingFraction: 1 },
  calculations: [],
})
