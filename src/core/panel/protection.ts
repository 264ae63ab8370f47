/** What a breaker does beside opening on too many amps: a row each; schema, directories, sentences and checks take it from here. */
export const protections = {
  none: { mark: '', shown: 'none', article: 'a plain', comparesNeutral: false },
  'arc-fault': { mark: 'AFCI', shown: 'arc-fault (AFCI)', article: 'an AFCI', comparesNeutral: true },
  'ground-fault': { mark: 'GFCI', shown: 'ground-fault (GFCI)', article: 'a GFCI', comparesNeutral: true },
  dual: { mark: 'AFCI/GFCI', shown: 'both', article: 'an AFCI/GFCI', comparesNeutral: true },
} as const satisfies Record<
  string,
  {
    /** as it is printed on the breaker, and typed in a directory */
    mark: string
    shown: string
    article: string
    /** it weighs hot against neutral: where one is led away both must go */
    comparesNeutral: boolean
  }
>
export type Protection = keyof typeof protections
export const protectionIds = Object.keys(protections) as [Protection, ...Protection[]]

/** The protection that a word in a directory names: by its mark, in any case. */
export const protectionTyped = (word: string): Protection | undefined =>
  protectionIds.find(id => protections[id].mark && protections[id].mark.toLowerCase() === word.toLowerCase())
