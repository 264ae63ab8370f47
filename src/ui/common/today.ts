import { dayIn } from '@/core/day'

/** The firm's zone, as the page was handed it; until then that of the device. */
let zone = Intl.DateTimeFormat().resolvedOptions().timeZone

export function setFirmZone(ofFirm: string): void {
  zone = ofFirm
}

/** The units that a firm reads in, for who has not chosen their own. */
let units: 'imperial' | 'metric' = 'imperial'
export function setFirmUnits(ofFirm: 'imperial' | 'metric' = 'imperial'): void {
  units = ofFirm
}
export const firmUnits = (): 'imperial' | 'metric' => units

export const firmZone = (): string => zone

/** The firm's day, YYYY-MM-DD: what is written on records and paper. */
export const today = (): string => dayIn(zone, new Date())
