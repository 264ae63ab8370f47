import fc from 'fast-check'
import { meanCloudFactor } from './sky'
import { streamOf } from './stream'
import { arrayW, cloudFactor, diffuseFraction, onArray, sunDay, sunSlots } from './sun'

/** The sun against what is known of it, and chance against its own moments. */

const noonOf = (month: number, latitudeDeg: number) => {
  const day = sunDay(month, latitudeDeg)
  const at = day.sine.indexOf(Math.max(...day.sine))
  return { ...day, at, heightDeg: (Math.asin(day.sine[at] ?? 0) * 180) / Math.PI }
}

test('stands as high at noon as 90° − latitude ± its declination, in the south, and up for as long as it should', () => {
  // 15 March and 15 June: declination −2° and 23.3° (within a degree of any almanac)
  expect(noonOf(2, 40).heightDeg).toBeCloseTo(90 - 40 - 2, 0)
  const june = noonOf(5, 40)
  expect(Math.abs(june.heightDeg - (90 - 40 + 23.3))).toBeLessThan(0.5)
  expect(Math.abs((june.azimuthDeg[june.at] ?? 0) - 180)).toBeLessThan(5)
  // 14.9 h of day at 40° north in June, 9.4 h in December
  expect((june.sunsetH ?? 0) - (june.sunriseH ?? 0)).toBeCloseTo(15, 0)
  const december = sunDay(11, 40)
  expect((december.sunsetH ?? 0) - (december.sunriseH ?? 0)).toBeCloseTo(9.4, 0)
  expect(sunDay(11, 75)).toMatchObject({ sunriseH: null, sunsetH: null })
  expect(Math.max(...sunDay(11, 75).clearWm2)).toBe(0)
})

test('an array that lies flat gets what the flat gets; one that leans to a low sun gets more, one that leans away less', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 11 }),
      fc.integer({ min: 20, max: 60 }),
      fc.integer({ min: 1, max: 100 }),
      (month, latitude, cloudPercent) => {
        const day = sunDay(month, latitude)
        const left = cloudFactor(cloudPercent / 100)
        for (let slot = 0; slot < sunSlots; slot += 7) {
          const flat = (day.clearWm2[slot] ?? 0) * left
          const sine = day.sine[slot] ?? 0
          expect(onArray(flat, sine, day.azimuthDeg[slot] ?? 0, 0, 180)).toBeCloseTo(flat, 6)
        }
      },
    ),
    { numRuns: 20 },
  )
  const low = Math.sin((25 * Math.PI) / 180)
  const [to, away] = [180, 0].map(azimuth => onArray(400, low, 180, 60, azimuth))
  expect(to).toBeGreaterThan(500)
  expect(away).toBeLessThan(150)
})

test('clouds leave all of a clear sky and a quarter of an overcast one, and less the cloudier it is', () => {
  expect(cloudFactor(0)).toBe(1)
  expect(cloudFactor(1)).toBe(0.25)
  const left = [0, 0.2, 0.4, 0.6, 0.8, 1].map(meanCloudFactor)
  expect([...left].sort((a, b) => b - a)).toEqual(left)
  for (const k of [0.22, 0.8]) expect(diffuseFraction(k - 1e-9)).toBeCloseTo(diffuseFraction(k + 1e-9), 2)
})

test('an array gives nine tenths of its rating at 1,000 W/m² where its cells are at 25 °C, more in the cold', () => {
  expect(arrayW(400, 1000, -5)).toBeCloseTo(360, 9)
  expect(arrayW(400, 1000, -15)).toBeGreaterThan(360)
  expect(arrayW(400, 0, 20)).toBe(0)
})

test('streams have the moments that they say', () => {
  const { uniform, normal, exponential } = streamOf(7, 3, 11)
  const moments = (of: () => number) => {
    const all = Array.from({ length: 20_000 }, of)
    const mean = all.reduce((a, b) => a + b, 0) / all.length
    return [mean, all.reduce((sum, v) => sum + (v - mean) ** 2, 0) / all.length] as const
  }
  for (const [of, mean, variance] of [
    [uniform, 0.5, 1 / 12],
    [normal, 0, 1],
    [exponential, 1, 1],
  ] as const) {
    const [m, v] = moments(of)
    expect(Math.abs(m - mean)).toBeLessThan(0.03)
    expect(Math.abs(v - variance)).toBeLessThan(0.05)
  }
})
