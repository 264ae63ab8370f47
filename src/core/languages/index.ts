import { IntlMessageFormat } from 'intl-messageformat'
import en from './en.json'
import es from './es.json'

/** The languages in which customers are spoken to, by their own names. */
export const languages = { en: 'English', es: 'Español' } as const
export type Language = keyof typeof languages
export const languageKeys = Object.keys(languages) as [Language, ...Language[]]
export const isLanguage = (text: unknown): text is Language =>
  typeof text === 'string' && Object.hasOwn(languages, text)

export type Messages = typeof en
export const messages: Record<Language, Messages> = { en, es }

/** How lists are joined: in English without a comma before the last, as everywhere in the product. */
const lists: Record<Language, string> = { en: 'en-GB', es: 'es' }

/** What stands in a sentence: a list is joined as its language does. */
export type Values = Readonly<Record<string, string | number | readonly string[]>>

/** Says what a key means in a language, with these values in it; throws where there is no such key. */
export type Sayer = (key: string, values?: Values) => string

/** The text at a key such as `card.line.look`; null where the language has none. */
export function textAt(
  language: Language,
  key: string,
  among: Record<Language, unknown> = messages,
): string | null {
  const found = key
    .split('.')
    .reduce<unknown>(
      (node, part) =>
        node !== null && typeof node === 'object' && Object.hasOwn(node, part)
          ? Reflect.get(node, part)
          : null,
      among[language],
    )
  if (typeof found === 'string') return found
  // who reads it is better served by English than by nothing
  return language === 'en' ? null : textAt('en', key, among)
}

function sayerOf(language: Language): Sayer {
  const list = new Intl.ListFormat(lists[language], { type: 'conjunction' })
  const read = new Map<string, IntlMessageFormat>()
  return (key, values = {}) => {
    const text = textAt(language, key)
    if (text === null) throw new Error(`there is no text ${key}`)
    const message = read.get(key) ?? new IntlMessageFormat(text, language)
    read.set(key, message)
    const said = Object.entries(values).map(([k, v]) => [
      k,
      typeof v === 'string' || typeof v === 'number' ? v : list.format(v),
    ])
    return String(message.format(Object.fromEntries(said)))
  }
}

const made = new Map<Language, Sayer>()
/** The sentences of a language. */
export function inLanguage(language: Language): Sayer {
  const here = made.get(language) ?? sayerOf(language)
  made.set(language, here)
  return here
}

/** The language that is asked for, else the one that a browser prefers (`Accept-Language`), else English. */
export const languageOf = (asked: unknown, preferred: string | null): Language =>
  isLanguage(asked) ? asked : /^\s*es\b/i.test(preferred ?? '') ? 'es' : 'en'
