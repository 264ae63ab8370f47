import { figure } from '../../units/format'

/** So much of a part, as it is counted: `12`, `26.4 ft`. */
export const amountOf = (value: number, unit: 'each' | 'ft'): string =>
  unit === 'ft' ? `${figure(Math.round(value * 10) / 10)} ft` : figure(value)

/** So many of a put-up: `7`, `25 ft`, `2 × 500 ft`. */
export const putUpOf = (
  { count, quantity }: { count: number; quantity: number },
  unit: 'each' | 'ft',
): string => (quantity === 1 ? amountOf(count, unit) : `${count} × ${amountOf(quantity, unit)}`)
