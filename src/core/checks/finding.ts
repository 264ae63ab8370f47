import type { Acceptance } from '../job/acceptance'
import type { SimpleOperation } from '../job/operations'
import type { Working } from '../working'

export const severities = ['stop', 'fix', 'mind', 'ask'] as const
export type Severity = (typeof severities)[number]

/** Where on the screens a finding is mended. */
export type Target =
  | { view: 'panel'; circuitIds: string[]; panelId?: string; field?: string }
  | { view: 'source' | 'hook-up' | 'plan' | 'outage' | 'ask'; field?: string }
  /** `field` is the test’s id */
  | { view: 'tests'; field?: string }
  /** of the loads, `field` is the load’s id */
  | { view: 'loads'; field?: string }

export interface Fix {
  label: string
  operations: SimpleOperation[]
  /** what is done at the panel, step by step */
  steps?: string[]
}

/** What one check has to say on this job. */
export interface Said {
  id: string
  severity: Severity
  /** what is wrong, with names, positions and figures */
  sentence: string
  why: string
  remedy: string
  /** article of the National Electrical Code, or the rule it comes from */
  article?: string
  target: Target
  fixes: Fix[]
  /** where its figures come from */
  working?: Working
}

/** A finding of an evaluation: what a check said, known by a key that stays while its figures change. */
export interface Finding extends Said {
  key: string
  /** who accepts it and why; never of a stop */
  accepted?: Acceptance
}

export const bySeverity = (a: Said, b: Said) =>
  severities.indexOf(a.severity) - severities.indexOf(b.severity)
