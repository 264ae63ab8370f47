import * as z from 'zod'

/** What of a battery follows from its chemistry, where its datasheet is silent. Our assumptions through common figures. */
interface ChemistryFacts {
  name: string
  /** capacity at the rate it is drawn: Peukert's exponent */
  peukert: number
  /** what is left of the capacity at 0 °C and at −20 °C */
  atZero: number
  atMinus20: number
  /** below it the cells must not be charged, °C; missing: they may */
  chargeAboveC?: number
  /** what happens to them then */
  chargedCold?: string
  /** level from which it charges more and more slowly */
  taperFromFraction: number
  /** share of the capacity that is used where a bank's sheet does not say */
  depthFraction: number
  /** it is sold as a bank of its own */
  bank: boolean
}

const plates =
  'Charged below freezing, lithium plates out inside the cells: they lose capacity for good, and can fail.'

/** A row for each chemistry. */
export const chemistryFacts = {
  lfp: {
    name: 'lithium iron',
    peukert: 1.05,
    atZero: 0.9,
    atMinus20: 0.7,
    taperFromFraction: 0.9,
    depthFraction: 0.9,
    chargeAboveC: 0,
    chargedCold: plates,
    bank: true,
  },
  nmc: {
    name: 'lithium nickel',
    peukert: 1.05,
    atZero: 0.9,
    atMinus20: 0.7,
    taperFromFraction: 0.9,
    depthFraction: 0.9,
    chargeAboveC: 0,
    chargedCold: plates,
    bank: false,
  },
  agm: {
    name: 'lead, AGM',
    peukert: 1.15,
    atZero: 0.8,
    atMinus20: 0.55,
    taperFromFraction: 0.75,
    depthFraction: 0.5,
    bank: true,
  },
  flooded: {
    name: 'lead, flooded',
    peukert: 1.25,
    atZero: 0.8,
    atMinus20: 0.55,
    taperFromFraction: 0.75,
    depthFraction: 0.5,
    bank: true,
  },
} as const satisfies Record<string, ChemistryFacts>

export type Chemistry = keyof typeof chemistryFacts
type BankChemistry = {
  [K in Chemistry]: (typeof chemistryFacts)[K]['bank'] extends true ? K : never
}[Chemistry]

const keys = Object.keys(chemistryFacts) as [Chemistry, ...Chemistry[]]
const isBank = (c: Chemistry): c is BankChemistry => chemistryFacts[c].bank
export const chemistries = keys
export const bankChemistries = keys.filter(isBank)
export const chemistryNames = Object.fromEntries(keys.map(k => [k, chemistryFacts[k].name]))

const schema = z.enum(keys)
/** The facts of a chemistry as it is named; undefined where nobody says, or names another. */
export function factsOfChemistry(chemistry: string | undefined): ChemistryFacts | undefined {
  const known = schema.safeParse(chemistry)
  return known.success ? chemistryFacts[known.data] : undefined
}
