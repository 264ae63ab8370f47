/** The firm that this server serves until people sign in: its short name. */
export const servedFirm = 'headwater'

/** The person who acts, and the firm that every query is scoped to. */
export interface Actor {
  firmId: string
  personId: string
  label: string
  role: string
}

/** One of a firm's people, with the firm's zone (an IANA name): its day is what dates are written in. */
export interface Person extends Actor {
  zone: string
}
