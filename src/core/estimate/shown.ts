import type { Acceptance } from './acceptance'
import type { Costs } from './cost'
import type { EstimateDocument } from './document'
import type { Draft } from './draft'
import type { Promised } from './promised'

/** What server and screens tell each other of an estimate. */

/** An option worked out: what it costs the firm, what it keeps alive, and what the checks say against it. */
export interface OptionMade extends Costs {
  id: string
  promise: Promised
  /** sentences of what must not be */
  stops: string[]
}

export type OfferState = 'open' | 'accepted' | 'newer' | 'expired' | 'withdrawn'

/** A version as the firm sees it. */
export interface VersionShown {
  n: number
  document: EstimateDocument
  sha256: string
  sentAt: string
  by: string
  expiresAt: string
  seenAt: string | null
  state: OfferState
  acceptance: Acceptance | null
  questions: { id: string; at: string; text: string; settled: boolean }[]
}

export interface EstimateShown {
  number: string | null
  draft: Draft
  draftVersion: number
  versions: VersionShown[]
}
