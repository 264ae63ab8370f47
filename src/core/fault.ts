/** One thing wrong with an input: where (`links[2].ratingA`, `$` for the whole) and what to do about it. */
export interface Fault {
  path: string
  message: string
}
