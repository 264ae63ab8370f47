/** Currencies that a firm prices in (ISO 4217), with their names. */
export const currencyNames = { USD: 'US dollars', CAD: 'Canadian dollars', MXN: 'Mexican pesos' } as const
export type Currency = keyof typeof currencyNames
export const currencies = Object.keys(currencyNames) as [Currency, ...Currency[]]
