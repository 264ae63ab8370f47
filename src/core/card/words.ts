import { inLanguage, type Language, type Sayer } from '../languages'
import { sentenceStart } from '../units/format'
import type { Card } from './card'
import type { CardLine } from './steps'
import type { WalkFault } from './walk'

/** A line as it is read: its sentence, and what is set one after the other. */
export interface SaidLine {
  text: string
  each: string[]
}

export interface SaidSection {
  key: 'where' | 'stays' | 'apart' | 'trips' | 'tell' | 'lasts' | 'engine' | 'medical' | 'hands'
  head: string
  lines: string[]
}

/** A card in a language: what stands on paper, on the page and in the terminal. */
export interface SaidCard {
  language: Language
  title: string
  place: string
  heading: string
  to: { head: string; lines: SaidLine[] }
  back: { head: string; lines: SaidLine[] }
  sections: SaidSection[]
  /** why it is not to be used; empty where it works out */
  wrong: string[]
  call: (firm: string) => string
  defers: string
}

/** More than these are not named: whatever is not on the card stays off. */
const mostNamed = 6
const dayH = 24
/** Beyond this it is told in days, h. */
const longH = 72
/** A length of time as a card says it: whole hours, in days where it is long. */
export const timeIn = (say: Sayer, hours: number): string =>
  hours > longH
    ? say('card.lasts.days', { n: Math.floor(hours / dayH) })
    : say('card.lasts.hours', { n: flooredHours(hours) })
const flooredHours = (hours: number) => (hours < 6 ? Math.floor(hours * 2) / 2 : Math.floor(hours))
const none = (text: string) => text || 'none'
const faultKeys: Record<WalkFault['what'], string> = {
  'cannot be set': 'cannotBeSet',
  'fed twice': 'fedTwice',
  bridged: 'bridged',
  'started warm': 'startedWarm',
  'stays dark': 'staysDark',
  'comes on': 'comesOn',
  'not as before': 'notAsBefore',
}

const lineIn =
  (say: Sayer) =>
  ({ say: key, with: values, each }: CardLine): SaidLine => ({
    text: sentenceStart(say(`card.line.${key}`, values)),
    each,
  })

export function cardIn(language: Language, card: Card): SaidCard {
  const say = inLanguage(language)
  const { units } = card
  const section = (
    key: SaidSection['key'],
    head: string,
    lines: readonly (string | null)[],
  ): SaidSection[] => {
    const said = lines.filter((l): l is string => Boolean(l))
    return said.length ? [{ key, head, lines: said }] : []
  }
  return {
    language,
    title: card.title,
    place: card.place,
    heading: say('card.title'),
    to: { head: say('card.to', { kind: card.source }), lines: card.to.map(lineIn(say)) },
    back: { head: say('card.back'), lines: card.back.map(lineIn(say)) },
    sections: [
      ...section('where', say('card.whereHead'), [
        card.found.panel && say('card.where.panel', { at: card.found.panel }),
      ]),
      ...section('medical', say('card.medicalHead'), [
        card.medical === null
          ? null
          : say('card.medical', { what: none(card.medical), way: none(card.found.secondWay) }),
      ]),
      ...section('stays', say('card.staysHead'), [
        card.locked.length ? say('card.locked', { circuits: card.locked }) : null,
        card.leftOff.length > mostNamed
          ? say('card.leftOffMany')
          : card.leftOff.length
            ? say('card.leftOff', { circuits: card.leftOff })
            : null,
      ]),
      ...section(
        'apart',
        say('card.apartHead'),
        card.apart.map(([a, b]) => say('card.apart', { a, b })),
      ),
      ...section('trips', say('card.tripsHead'), [
        say(`card.trips.${card.trips === 'by hand' ? 'byHand' : 'byItself'}`, { units }),
      ]),
      ...section('tell', say('card.tellHead'), [
        say(`card.tell.${card.tell.say}`, { circuit: none(card.tell.circuit), units }),
      ]),
      ...section(
        'lasts',
        say('card.lastsHead', { season: card.season }),
        card.lasts.map(({ what, hours, circuits }) => {
          const time = timeIn(say, hours)
          return say(`card.lasts.${what === 'must' && circuits.length > mostNamed ? 'mustMany' : what}`, {
            time,
            circuits,
          })
        }),
      ),
      ...section('engine', say('card.engineHead'), [
        card.charger && say('card.charger', { generator: card.charger.name, share: card.charger.share }),
        card.engine ? say('card.engine') : null,
      ]),
      ...section('hands', say('card.handsHead'), [say('card.hands')]),
    ],
    wrong: [...new Set(card.wrong.map(f => say(`card.fault.${faultKeys[f.what]}`, { of: f.of })))],
    call: firm => say('card.call', { firm, phone: none(card.found.phone) }),
    defers: say('card.defers'),
  }
}

/** As lines of plain text: for the terminal. */
export function cardText(said: SaidCard, only?: 'to' | 'back'): string[] {
  const way = ({ head, lines }: SaidCard['to']) => [
    head.toUpperCase(),
    ...lines.flatMap((l, n) => [`${n + 1}. ${l.text}`, ...l.each.map(e => `   - ${e}`)]),
    '',
  ]
  return [
    ...(said.wrong.length
      ? [inLanguage(said.language)('card.wrong'), ...said.wrong.map(w => `! ${w}`), '']
      : []),
    ...(only === 'back' ? [] : way(said.to)),
    ...(only === 'to' ? [] : way(said.back)),
    ...said.sections.flatMap(s => [s.head.toUpperCase(), ...s.lines, '']),
    said.defers,
  ]
}
