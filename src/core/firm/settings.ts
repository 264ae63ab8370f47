import * as z from 'zod'
import { editionSchema } from '../editions'
import { languageKeys } from '../languages'
import { currencies } from '../money-names'
import { line } from '../quantity'

/** Whether this is the name of a zone that clocks know (IANA). */
function isZone(zone: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone })
    return true
  } catch {
    return false
  }
}

/** A firm’s own ways: what its papers say, and what every new job begins with. */
export const firmSettingsSchema = z.strictObject({
  /** how the firm is called on papers and pages */
  name: line(80, 1),
  /** IANA name of the zone that its days are counted in */
  zone: z.string().max(60).refine(isZone, 'must be a time zone, such as America/New_York'),
  /** whom a house calls; a new job begins with it */
  telephone: line(30),
  /** edition of the code that a new job is checked against */
  edition: editionSchema,
  /** who inspects here; stands on the firm’s papers after the edition */
  authority: line(120),
  /** how lengths and temperatures are read and typed by whoever has not chosen themselves */
  units: z.enum(['imperial', 'metric']),
  /** what prices are in (ISO 4217); an estimate in other than US dollars says so */
  currency: z.enum(currencies),
  /** what a new customer reads */
  language: z.enum(languageKeys),
  /** whether everybody of the firm signs in by more than a password */
  secondStep: z.enum(['offered', 'demanded']),
})
export type FirmSettings = z.infer<typeof firmSettingsSchema>

/** A firm that has said nothing yet. */
export const usualSettings = (name: string): FirmSettings => ({
  name,
  zone: 'America/New_York',
  telephone: '',
  edition: 2023,
  authority: '',
  units: 'imperial',
  currency: 'USD',
  language: 'en',
  secondStep: 'offered',
})
