/** Money is whole cents, and a range of it two of them. */
export interface Cents {
  low: number
  high: number
}

/** Dollars as whole cents, half a cent up. What floating point leaves below a half is a half. */
export const centsOf = (usd: number): number => Math.floor(usd * 100 + 0.5 + 1e-7)

/** A share of cents as whole cents, half a cent up. */
export const shareOf = (cents: number, fraction: number): number => Math.floor(cents * fraction + 0.5 + 1e-7)

export const exactly = (cents: number): Cents => ({ low: cents, high: cents })
export const both = (cents: Cents, of: (cents: number) => number): Cents => ({
  low: of(cents.low),
  high: of(cents.high),
})
export const added = (all: readonly Cents[]): Cents =>
  all.reduce((sum, c) => ({ low: sum.low + c.low, high: sum.high + c.high }), exactly(0))

/** `$1,234.50`, or `$1,234.50 to $1,400.00`. */
export const moneyText = ({ low, high }: Cents): string =>
  low === high ? dollars(low) : `${dollars(low)} to ${dollars(high)}`

const format = new Intl.NumberFormat('en-US', { style: 'currency', currency: 'USD' })
export const dollars = (cents: number): string => format.format(cents / 100)

/** With its sign, for a difference. */
export const difference = (cents: number): string => `${cents < 0 ? '−' : '+'}${dollars(Math.abs(cents))}`
