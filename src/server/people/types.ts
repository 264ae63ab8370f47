import type { Role } from '@/core/firm/roles'

/** The demo’s firm, by its short name. */
export const servedFirm = 'headwater'

/** The person who acts, and the firm that every query is scoped to. */
export interface Actor {
  firmId: string
  personId: string
  label: string
  /** a role of the firm, or `customer` for what comes in by a link */
  role: string
}

/** One of a firm's people, with the firm's zone (an IANA name): its day is what dates are written in. */
export interface Person extends Actor {
  zone: string
}

/** Who acts, as the screens show it. */
export interface PersonShown {
  id: string
  label: string
  firm: string
  zone: string
  role: Role
  /** in which whoever has not chosen themselves reads and types */
  units: 'imperial' | 'metric'
  /** who inspects where the firm works; empty where it is not said */
  authority: string
  /** looked around as, in the demo */
  demo: boolean
}
