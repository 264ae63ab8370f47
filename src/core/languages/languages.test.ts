import { IntlMessageFormat } from 'intl-messageformat'
import { inLanguage, isLanguage, languageKeys, languageOf, messages, textAt } from '.'

const leaves = (node: unknown, at = ''): [string, string][] =>
  typeof node === 'string'
    ? [[at, node]]
    : Object.entries(node as object).flatMap(([key, inner]) => leaves(inner, at ? `${at}.${key}` : key))
/** The values that a message takes, and the words by which it chooses, in their order. */
const takes = (message: string): string[] => {
  const walk = (nodes: ReturnType<IntlMessageFormat['getAst']>): string[] =>
    nodes.flatMap(n =>
      'options' in n
        ? [n.value, ...Object.entries(n.options).flatMap(([key, { value }]) => [key, ...walk(value)])]
        : n.type === 0
          ? []
          : [String('value' in n ? n.value : '#')],
    )
  return [...new Set(walk(new IntlMessageFormat(message, 'en').getAst()))].sort()
}

test('every text stands in every language, takes the same values, and is told apart by the same words', () => {
  const here = Object.fromEntries(leaves(messages.en))
  for (const language of languageKeys) {
    const there = Object.fromEntries(leaves(messages[language]))
    expect(Object.keys(there)).toEqual(Object.keys(here))
    for (const [key, message] of Object.entries(there)) {
      expect([key, takes(message)]).toEqual([key, takes(here[key] ?? '')])
    }
  }
})

test('lists are joined as the language does; a text that is missing is an error, never silence', () => {
  const circuits = ['5 Kitchen', '7 Hall']
  expect(inLanguage('en')('card.leftOff', { circuits })).toBe('Leave off: 5 Kitchen and 7 Hall.')
  expect(inLanguage('es')('card.leftOff', { circuits })).toBe('Déjelo en OFF: 5 Kitchen y 7 Hall.')
  expect(() => inLanguage('es')('card.nothing')).toThrow(/card\.nothing/)
  expect(() => inLanguage('en')('card.leftOff')).toThrow(/circuits/)
  expect([isLanguage('es'), isLanguage('fr'), isLanguage('toString')]).toEqual([true, false, false])
})

test('a text that a language lacks is said in English; one that none has is nothing', () => {
  const lacking = { en: { card: { title: 'Card' } }, es: { card: {} } }
  expect(textAt('es', 'card.title', lacking)).toBe('Card')
  expect(textAt('es', 'card.title')).toBe('Cuando se va la luz')
  expect(textAt('es', 'card.title.more', lacking)).toBeNull()
  expect(textAt('en', 'toString')).toBeNull()
})

test('the language that is asked for comes first, then what the browser prefers, then English', () => {
  expect(languageOf('en', 'es-MX')).toBe('en')
  expect(languageOf(undefined, 'es-MX,en;q=0.8')).toBe('es')
  expect(languageOf('fr', 'de')).toBe('en')
  expect(languageOf(['es'], null)).toBe('en')
  // a language whose name only begins so is another
  expect(languageOf(null, 'est')).toBe('en')
})

/** Words that stand in English texts alone; what hardware says is left out. */
const english = /\b(the|and|with|your|switch|breaker|wait|power|house|battery|off it|until)\b/i

test('no English is left in the Spanish texts, and no text is left as it was', () => {
  const same: string[] = []
  const here = Object.fromEntries(leaves(messages.en))
  for (const [key, message] of leaves(messages.es)) {
    const said = message
      .replace(/\{\w+\}/g, '')
      .replace(
        /\{(\w+), (select|plural),|\b(one|other|none|winter|battery|generator|vehicle|lost|off|yes|engine)\b(?= ?\{)/g,
        '',
      )
    expect([key, english.exec(said)?.[0]]).toEqual([key, undefined])
    if (message === here[key] && /[a-z]{4}/i.test(message.replace(/\{[^}]*\}/g, ''))) same.push(key)
  }
  expect(same).toEqual(['card.where.panel'])
})
