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
/** Characters as a person counts them: an emoji is one. */
export const lengthOf = (text: string) => [...countable.segment(text)].length

/** One line of text, trimmed, without control characters. */
export const line = (most: number, least = 0) =>
  z
    .string()
    .trim()
    .check(context => {
      const text = context.value
      const say = (message: string) => context.issues.push({ code: 'custom', message, input: text })
      if (text.length < least) say('must not be empty')
      // code units are never fewer than characters: counting those takes time, and is seldom needed
      const length = text.length > most ? lengthOf(text) : text.length
      if (length > most) say(`must be at most ${most} characters; this has ${length}`)
      if (/[\p{Cc}\p{Cs}]/u.test(text)) say('must not contain control characters or line breaks')
    })
