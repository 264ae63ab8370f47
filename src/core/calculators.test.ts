import { calculate, curvesOf, schemasOf, solve } from './calculator'
import { calculators, nearestNames } from './calculators'
import { type Field, fieldsOf } from './field'
import { faultPaths } from './fixtures/calculating'
import { start } from './loads/start'

const each = calculators.map(c => [c.name, c] as const)

test('the bench holds every calculator of the contract, each under a name of its own', () => {
  expect(calculators.map(c => c.name).sort()).toEqual([
    'ampacity',
    'bank',
    'box-fill',
    'capacity-test',
    'conduit-fill',
    'cord-chain',
    'equipment-ground',
    'interval-demand',
    'legs',
    'load-log',
    'outlet-readings',
    'panel-demand',
    'refill',
    'runtime',
    'shared-neutral',
    'solar-string',
    'split-readings',
    'start',
    'two-batteries',
    'voltage-drop',
    'weather-scale',
  ])
  expect(nearestNames('voltagedrop')[0]).toBe('voltage-drop')
})

describe.each(each)('%s', (_, calculator) => {
  const worked = () => {
    const outcome = calculate(calculator, calculator.example)
    if (!outcome.ok) throw new Error(JSON.stringify(outcome.faults))
    return outcome.value
  }

  test('answers its example in a sentence, with formula, inputs and steps behind it', () => {
    const { result, answer, working } = worked()
    expect(calculator.output.safeParse(result).success).toBe(true)
    expect(solve(calculator, calculator.example)).toEqual({ ok: true, value: result })
    expect(answer).toMatch(/\.$/)
    expect(working.formula.length && working.inputs.length && working.steps.length).toBeGreaterThan(0)
    expect(working.notCovered.length).toBeGreaterThan(0)
    const everything = JSON.stringify([answer, working])
    expect(everything).not.toMatch(/\b(safe|approved|undefined|NaN|null)\b/i)
    expect(everything).not.toContain('!')
  })

  test('names every key it takes and gives, in words', () => {
    const unnamed = (fields: Field[]): string[] =>
      fields.flatMap(f => [...(f.title === f.key ? [f.key] : []), ...unnamed(f.of)])
    expect(unnamed(fieldsOf(calculator.input, calculator.example))).toEqual([])
    expect(unnamed(fieldsOf(calculator.output))).toEqual([])
    expect(JSON.stringify(schemasOf(calculator))).toContain('"title"')
  })

  test('refuses an unknown key, null for any key, and what is no object, each in its place', () => {
    expect(faultPaths(calculator, { ...calculator.example, extra: 1 })).toContain('extra')
    for (const { key } of fieldsOf(calculator.input, calculator.example))
      expect(faultPaths(calculator, { ...calculator.example, [key]: null })).toContain(key)
    for (const raw of [null, [], 'x', 3]) expect(faultPaths(calculator, raw)).toEqual(['$'])
  })

  test('refuses a number that is none, at whatever depth, in its place', () => {
    const numbers = (fields: Field[], value: unknown, path: string): string[] =>
      fields.flatMap(f => {
        const at = path ? `${path}.${f.key}` : f.key
        const inner: unknown =
          value !== null && typeof value === 'object' ? Reflect.get(value, f.key) : undefined
        if (f.kind === 'number' || f.kind === 'whole') return inner === undefined ? [] : [at]
        if (f.kind === 'group' && inner !== undefined) return numbers(f.of, inner, at)
        return f.kind === 'rows' && Array.isArray(inner) && inner.length
          ? numbers(f.of, inner[0], `${at}[0]`)
          : []
      })
    const paths = numbers(fieldsOf(calculator.input, calculator.example), calculator.example, '')
    for (const path of paths)
      for (const bad of ['5', true, Number.NaN, Number.POSITIVE_INFINITY, [1], {}]) {
        const raw: unknown = structuredClone(calculator.example)
        const keys = path.split(/[.[\]]+/).filter(Boolean)
        const holder = keys.slice(0, -1).reduce<unknown>((at, key) => Reflect.get(at as object, key), raw)
        Reflect.set(holder as object, keys.at(-1) ?? '', bad)
        expect(faultPaths(calculator, raw)).toEqual([path])
      }
  })

  test('draws curves of finite points', () => {
    for (const curve of curvesOf(calculator, calculator.example)) {
      const points = curve.series.flatMap(s => s.points)
      expect(points.length).toBeGreaterThan(0)
      for (const p of points) expect(Number.isFinite(p.y)).toBe(true)
      expect(curve.x.label && curve.y.label).toBeTruthy()
    }
  })
})

test('an input that cannot be answered draws nothing', () => {
  expect(curvesOf(start, { method: 'multiple' })).toEqual([])
})

test('a result too large for a double is a fault, not Infinity', () => {
  expect(faultPaths(start, { method: 'inrush', inrushA: 1e300, volts: 1e300 })).toEqual(['$'])
})
