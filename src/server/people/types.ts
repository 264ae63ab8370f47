/** The person who acts, and the firm that every query is scoped to. */
export interface Actor {
  firmId: string
  personId: string
  label: string
  role: string
}
