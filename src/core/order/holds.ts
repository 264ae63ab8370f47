import { figure, quantity } from '../units/format'
import type { ConductorSize } from '../units/tables/conductors'

/** What a hold point asks for, and whether a named person may go on without it. A row for each kind. */
export const holdKinds = {
  'as found': { name: 'As found', asks: 'confirm', skippable: true },
  told: { name: 'Told', asks: 'confirm', skippable: true },
  lock: { name: 'Lock and tag', asks: 'photo', skippable: true },
  prove: { name: 'Prove, test, prove', asks: 'readings', skippable: false },
  apart: { name: 'Neutral and ground apart', asks: 'readings', skippable: true },
  torque: { name: 'Torque', asks: 'readings', skippable: true },
  tug: { name: 'Tug', asks: 'initials', skippable: true },
  interlock: { name: 'Interlock', asks: 'photo', skippable: false },
  template: { name: 'Second pair of eyes', asks: 'second', skippable: true },
  arrow: { name: 'Leg and arrow', asks: 'photo', skippable: true },
  bars: { name: 'Bars apart', asks: 'confirm', skippable: true },
  empty: { name: 'Nothing left inside', asks: 'confirm', skippable: true },
  cover: { name: 'Cover on', asks: 'photo', skippable: true },
  volts: { name: 'Volts back', asks: 'readings', skippable: true },
  corrected: { name: 'Corrected', asks: 'photo', skippable: true },
} as const
export type HoldKind = keyof typeof holdKinds

type Unit = 'V' | 'Ω' | 'in·lb'
/** One figure that is read: what it is between, and how it is judged. */
export interface ReadingAsked {
  key: string
  name: string
  unit: Unit
  role: 'known' | 'dead' | 'dead to ground' | 'apart' | 'torque' | 'leg' | 'legs'
}

/** A point at which the work stops until its evidence is there. */
export interface Hold {
  id: string
  kind: HoldKind
  text: string
  readings: ReadingAsked[]
  /** by what the place could still be live: said where a reading is refused */
  could: string[]
  /** thickest wire under the screws: the usual torque is judged by it */
  size?: ConductorSize
}

/** What was written down at a hold point. */
export interface Evidence {
  by: string
  readings?: readonly { key: string; value: number | 'OL' }[] | undefined
  /** by the simulated meter, not by an instrument */
  simulated?: true | undefined
  photoId?: string | undefined
  text?: string | undefined
  /** the torque tool, or the instrument */
  tool?: string | undefined
  /** the second person */
  with?: string | undefined
}

export interface Judged {
  state: 'passed' | 'doubtful' | 'refused' | 'open'
  text: string
  /** what to do next */
  next: string
}

const passed: Judged = { state: 'passed', text: '', next: '' }
const open = (next: string): Judged => ({ state: 'open', text: '', next })

/** Below this nothing is connected, V. */
export const deadV = 3
/** From here on it is live, V (NFPA 70E 110: 50 V). */
export const liveV = 50

/** Usual tightening of screw terminals by wire, in·lb, from slotted heads to larger ones (NEC Annex I, table I.1). The label decides. */
const usualTorque: readonly { upTo: readonly ConductorSize[]; low: number; high: number }[] = [
  { upTo: ['14', '12', '10'], low: 20, high: 35 },
  { upTo: ['8'], low: 25, high: 40 },
  { upTo: ['6', '4'], low: 35, high: 45 },
  { upTo: ['3', '2'], low: 35, high: 50 },
]
const larger = { low: 50, high: 375 }
export const torqueOf = (size: ConductorSize | undefined): { low: number; high: number } =>
  usualTorque.find(r => size !== undefined && r.upTo.includes(size)) ?? larger

type Read = { asked: ReadingAsked; value: number | 'OL' }

/** One reading by its role: a row each. Null where it is as it should be. */
const judges: Record<ReadingAsked['role'], (read: Read, hold: Hold) => Judged | null> = {
  known: ({ asked, value }) =>
    value !== 'OL' && ((value >= 105 && value <= 135) || (value >= 205 && value <= 270))
      ? null
      : {
          state: 'refused',
          text: `${asked.name}: ${said(value, 'V')} on a source that is known to be live. The instrument is not proven, and none of its zeros count.`,
          next: 'Change its battery or its leads, or take another instrument; then begin again with the known source.',
        },
  dead: (read, hold) => deadOr(read, hold),
  'dead to ground': (read, hold) => deadOr(read, hold),
  apart: ({ asked, value }) => {
    if (value === 'OL' || value >= 100_000) return null
    return value >= 1000
      ? {
          state: 'doubtful',
          text: `${asked.name}: ${said(value, 'Ω')} is neither open nor joined: a load, or damp, lies between.`,
          next: 'Lift the feeder’s neutral and open every breaker, then read again.',
        }
      : {
          state: 'refused',
          text: `${asked.name}: ${said(value, 'Ω')}: they are joined in this panel, and neutral current would run on ground.`,
          next: 'Look for the bonding screw or strap, and for a ground on the neutral bar. A neutral that is already landed at a bonded panel reads joined: lift it.',
        }
  },
  torque: ({ asked, value }, { size }) => {
    const { low, high } = torqueOf(size)
    return value !== 'OL' && value >= low * 0.6 && value <= high * 1.5
      ? null
      : {
          state: 'doubtful',
          text: `${asked.name}: ${said(value, 'in·lb')}; usual for this wire is ${figure(low)} to ${inLb(high)} (NEC 110.14(D), Annex I).`,
          next: 'Read the label again. Where it says so, write down what it says.',
        }
  },
  leg: ({ asked, value }) => volts(asked, value, 114, 126, 105, 132),
  legs: ({ asked, value }) => volts(asked, value, 228, 252, 205, 264),
}

const inLb = (value: number) => `${figure(value)} in·lb`
const units: Record<Unit, (value: number) => string> = {
  V: v => quantity(v, 'V'),
  Ω: v => quantity(v, 'ohm'),
  in·lb: inLb,
}
const said = (value: number | 'OL', unit: Unit) => (value === 'OL' ? 'OL' : units[unit](value))

function deadOr({ asked, value }: Read, { could }: Hold): Judged | null {
  if (value === 'OL')
    return {
      state: 'refused',
      text: `${asked.name}: OL is no voltage reading.`,
      next: 'Set the instrument to AC volts, prove it on the known source, and read again.',
    }
  const v = Math.abs(value)
  if (v < deadV) return null
  return v >= liveV
    ? {
        state: 'refused',
        text: `${asked.name}: ${said(v, 'V')}. It is live: keep your hands out.`,
        next: could.length
          ? `Close the door. By what it could be fed: ${could.join('; ')}. Find it, open it, lock it, and prove again.`
          : 'Close the door. Nothing of the job explains it: look for a supply that nobody entered, open it, lock it, and prove again.',
      }
    : {
        state: 'doubtful',
        text: `${asked.name}: ${said(v, 'V')} is neither dead nor mains: a meter of high impedance shows what is coupled in from wires beside it, or a neutral is lifted.`,
        next: 'Read again with a tester that loads the wire (low impedance). What stays is fed from somewhere: find it.',
      }
}

function volts(
  asked: ReadingAsked,
  value: number | 'OL',
  from: number,
  to: number,
  low: number,
  high: number,
): Judged | null {
  if (value !== 'OL' && value >= from && value <= to) return null
  const off = value === 'OL' || value < low || value > high
  return {
    state: off ? 'refused' : 'doubtful',
    text: `${asked.name}: ${said(value, 'V')}, outside ${from} V to ${to} V.`,
    next: off
      ? 'Main off again, at once: a lifted neutral lets one leg rise and the other fall. Look at the neutral first.'
      : 'The utility may be that far off: read it at the incoming lugs, and write down what it is there.',
  }
}

/** What a hold point says to the evidence; of several readings the gravest. */
export function judge(hold: Hold, evidence: Evidence | null): Judged {
  const { asks } = holdKinds[hold.kind]
  if (!evidence) return open(hold.text)
  switch (asks) {
    case 'confirm':
      return passed
    case 'photo':
      return evidence.photoId || evidence.text
        ? passed
        : open('Take a photograph; where none may be taken, write down what is seen, and the tag’s number.')
    case 'initials':
      return evidence.text ? passed : open('Initials of who pulled at it.')
    case 'second':
      return evidence.with && evidence.with !== evidence.by
        ? passed
        : open('Somebody else looks, and is named: not who drills.')
    case 'readings': {
      const missing = hold.readings.filter(r => !evidence.readings?.some(e => e.key === r.key))
      if (missing.length) return open(`Still to be read: ${missing.map(m => m.name).join(', ')}.`)
      if (hold.kind === 'torque' && !evidence.tool) return open('Which torque tool, by its number.')
      const told = hold.readings.flatMap(asked => {
        const value = evidence.readings?.find(e => e.key === asked.key)?.value
        return (value === undefined ? null : judges[asked.role]({ asked, value }, hold)) ?? []
      })
      const gravest = told.find(t => t.state === 'refused') ?? told[0]
      // what the label says, or what was found at the lugs, may stand against what is usual
      const answered =
        gravest?.state === 'doubtful' && evidence.text && (hold.kind === 'torque' || hold.kind === 'volts')
      return !gravest ? passed : answered ? { ...passed, text: gravest.text } : gravest
    }
  }
}
