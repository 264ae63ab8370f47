import * as z from 'zod'

/** Contract quantities: finite doubles with the ranges of the calculators' contract. */
export const positive = z.number().gt(0, 'must be more than 0')
export const notNegative = z.number().min(0, 'must not be negative')
export const fraction = z.number().min(0, 'must be from 0 to 1').max(1, 'must be from 0 to 1')
export const positiveFraction = z
  .number()
  .gt(0, 'must be above 0 and at most 1')
  .max(1, 'must be above 0 and at most 1')

/** A number of things: whole, at least 1. */
export const counted = z.int('must be a whole number').min(1, 'must be at least 1')
/** Degrees Celsius: any that exists. */
export const celsius = z.number().min(-273.15, 'must be a temperature in °C above absolute zero (−273.15)')

/** A bounded quantity of a job: the message names the unit, so that a slip of the unit is seen. */
export const within = (low: number, high: number, unit: string) => {
  const message = `must be from ${low.toLocaleString('en-US')} to ${high.toLocaleString('en-US')} ${unit}`
  return z.number().min(low, message).max(high, message)
}

const countable = new Intl.Segmenter('en', { granularity: 'grapheme' })
const pieceUnits = 96
const overlapUnits = 32
/**
 * Characters as a person counts them: an emoji is one. The counter of the platform takes time by the square of the length, so it
 * is given pieces; what the end of one may have cut is counted with the next.
 */
export function lengthOf(text: string): number {
  let count = 0
  for (let at = 0; at < text.length; ) {
    const starts = Array.from(countable.segment(text.slice(at, at + pieceUnits)), s => s.index)
    if (at + pieceUnits >= text.length) return count + starts.length
    const sure = starts.filter(start => start <= pieceUnits - overlapUnits)
    const last = sure.at(-1) ?? 0
    // what is longer than a piece is no character that anybody reads as one
    count += last === 0 ? 1 : sure.length - 1
    at += last === 0 ? pieceUnits : last
  }
  return count
}

/** Code units that a character of a person may take; the largest emoji take eleven. */
const unitsOfACharacter = 12

/** What is wrong with text of at most `most` characters; null when nothing is. What is much too long is refused before it is counted. */
function lengthFault(text: string, most: number): string | null {
  if (text.length <= most) return null
  const allowed = `must be at most ${most.toLocaleString('en-US')} characters`
  if (text.length > most * unitsOfACharacter)
    return `${allowed}; this takes ${text.length.toLocaleString('en-US')}`
  // code units are never fewer than characters: counting those takes time, and is seldom needed
  const length = lengthOf(text)
  return length > most ? `${allowed}; this has ${length}` : null
}

/** One line of text, trimmed, without control characters or halves of characters. */
export const line = (most: number, least = 0) =>
  z
    .string()
    // trimming walks the text: what is far too long is not walked
    .overwrite(text => (text.length > most * 64 ? text : text.trim()))
    .check(context => {
      const text = context.value
      const say = (message: string) => context.issues.push({ code: 'custom', message, input: text })
      if (text.length < least) say('must not be empty')
      const tooLong = lengthFault(text, most)
      if (tooLong) say(tooLong)
      else if (/\p{Cc}/u.test(text)) say('must not contain control characters or line breaks')
      else if (/\p{Cs}/u.test(text)) say('holds half of a character that was cut in two: type it anew')
    })
