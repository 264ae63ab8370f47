import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { tokens, widths } from './tokens'

const sheets = readdirSync('src', { recursive: true, encoding: 'utf8' })
  .filter(file => file.endsWith('.css'))
  .map(file => [file, readFileSync(join('src', file), 'utf8')] as const)
const used = (pattern: RegExp) =>
  sheets.flatMap(([file, css]) => [...css.matchAll(pattern)].map(m => `${file}: ${m[1]?.trim()}`))

test('every size of type, gap, corner, ink and width of a style sheet is a token of the theme', () => {
  expect(sheets.length).toBeGreaterThan(15)
  expect(used(/font-size: ([^;]+);/g).filter(u => !/: var\(--(text|print)-[a-z]+\)$/.test(u))).toEqual([])
  const spaced = /^(0|[\d.]+in|auto|var\(--(gap|radius)-[a-z]+\))$/
  const each = (found: string[]) =>
    found.filter(
      u =>
        !u
          .split(': ')[1]
          ?.split(' ')
          .every(v => spaced.test(v)),
    )
  expect(each(used(/(?<![a-z])gap: ([^;]+);/g))).toEqual([])
  expect(each(used(/border-radius: ([^;]+);/g)).filter(u => !u.endsWith(': 50%'))).toEqual([])
  expect(used(/(#[0-9a-f]{3,8})\b/gi)).toEqual([])
  const known = new Set<number>(Object.values(widths))
  expect(used(/@media[^{]*max-width: (\d+)px/g).filter(u => !known.has(Number(u.split(': ')[1])))).toEqual([])
})

test('a style sheet takes no token that the theme does not have', () => {
  const names = used(/var\((--(?:text|print|gap|radius|ink)-[a-z-]+)\)/g).map(u => u.split(': ')[1] ?? '')
  expect([...new Set(names)].filter(name => !(name in tokens))).toEqual([])
})

test('a screen takes sizes of type and colours from the theme alone', () => {
  const screens = readdirSync('src/ui', { recursive: true, encoding: 'utf8' })
    .filter(file => file.endsWith('.tsx') && !file.startsWith('theme'))
    .map(file => [file, readFileSync(join('src/ui', file), 'utf8')] as const)
  const own = /fontSize: ?(?:\d|['"]\d)|['"]#[0-9a-f]{3,8}['"]|rgba?\(\d/i
  expect(screens.filter(([, code]) => own.test(code)).map(([file]) => file)).toEqual([])
})
