/** Exact by definition: the international foot. */
const metresPerFoot = 0.3048

/** Decimal digits that a conversion there and back keeps; the rest is noise of the binary fraction. */
const kept = (value: number) => Number(value.toPrecision(14))

export const metresOf = (ft: number): number => kept(ft * metresPerFoot)
export const feetOf = (m: number): number => kept(m / metresPerFoot)
export const fahrenheitOf = (c: number): number => kept(c * 1.8 + 32)
export const celsiusOf = (f: number): number => kept((f - 32) / 1.8)
