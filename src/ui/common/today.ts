import { dayIn } from '@/core/day'

/** The firm's zone, as the page was handed it; until then that of the device. */
let zone = Intl.DateTimeFormat().resolvedOptions().timeZone

export function setFirmZone(ofFirm: string): void {
  zone = ofFirm
}

export const firmZone = (): string => zone

/** The firm's day, YYYY-MM-DD: what is written on records and paper. */
export const today = (): string => dayIn(zone, new Date())
