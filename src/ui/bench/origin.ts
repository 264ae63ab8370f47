/** Where in which job a calculation came from. */
export interface Origin {
  jobId: string
  calculationId: string | null
  note: string
}
