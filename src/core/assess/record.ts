import type { Severity } from '../checks/finding'
import type { Job } from '../job/schema'

/** A job as the server hands it over: the document, its revision, and what undo and redo would do, in words, the next first. */
export interface JobRecord {
  id: string
  job: Job
  revision: number
  undos: string[]
  redos: string[]
  archived: boolean
}

/** All that others did since a revision, however much: what decides whether changes may be put on top without asking. */
export interface Others {
  changes: number
  customersOnly: boolean
}

/** One change of a job's history, as one line. */
export interface Revision {
  revision: number
  sentence: string
  person: string
  role: string
  at: string
}

/** A job as a list shows it. */
export interface JobListRow {
  id: string
  title: string
  place: string
  step: string
  worst: { severity: Severity; sentence: string } | null
  hoursNeeded: number
  hoursHad: number | null
  updatedAt: string
}
