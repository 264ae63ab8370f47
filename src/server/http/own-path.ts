/** A path of our own to go on to; anything else falls back to the jobs. */
export const ownPath = (asked: unknown): string =>
  typeof asked === 'string' && asked.length <= 500 && /^\/(?![/\\])[^\p{Cc}]*$/u.test(asked) ? asked : '/jobs'
