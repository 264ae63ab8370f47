import { meterReader } from '../formats/meter-csv'
import { guessMeterFormat } from '../formats/meter-guess'
import type { Series } from '../loads/series'
import { fail, fault, type Outcome, ok } from '../outcome'

/** What a series of a capacity test comes to. */
export interface Discharge {
  /** mean while the load was on, W */
  loadW: number
  deliveredWh: number
  hours: number
}

/** On is what draws more than this share of the most. */
const onShare = 0.1
/** A capacity test shorter than this tells nothing, h. */
const leastHours = 0.25
const headLength = 20_000

/** Watt-hours of a series, each reading speaking for its own span; the last one for none. W and s in, Wh out. */
export function discharged({ tS, W, backward }: Pick<Series, 'tS' | 'W' | 'backward'>): Discharge {
  const most = W.reduce((a, b) => Math.max(a, b), 0)
  let [Wh, onS] = [0, 0]
  for (let i = 1; i < tS.length; i++) {
    const spanS = (tS[i] ?? 0) - (tS[i - 1] ?? 0)
    const power = W[backward ? i : i - 1] ?? 0
    if (power <= onShare * most) continue
    Wh += (power * spanS) / 3600
    onS += spanS
  }
  return { loadW: onS > 0 ? (3600 * Wh) / onS : 0, deliveredWh: Wh, hours: onS / 3600 }
}

/** The same of a meter’s file. Faults: no series of a meter, or one that is too short to be a capacity test. */
export function dischargeIn(text: string): Outcome<Discharge> {
  const guess = guessMeterFormat(text.slice(0, headLength), 120)
  if (!guess.ok) return guess
  const reader = meterReader(guess.value.format)
  const taken = reader.write(text)
  if (!taken.ok) return taken
  const read = reader.end()
  if (!read.ok) return read
  const told = discharged(read.value.series)
  return told.hours >= leastHours
    ? ok(told)
    : fail(
        fault(
          '$',
          `holds ${Math.round(told.hours * 60)} min of load: a capacity test runs from full to empty`,
        ),
      )
}
