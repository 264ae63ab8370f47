import { methodOf } from '../hookup/method'
import { quantity } from '../units/format'
import type { Racer } from './racer'
import {
  type GeneratorChoice,
  generatorCost,
  type Head,
  onePersonLb,
  ownedOf,
  type Space,
  type SunChoice,
  sunCost,
  sunWeightLb,
} from './space'
import { missingFrom, type Part, partsOf, partText } from './stock'
import type { KinChecked, MethodChecked, Why } from './tasks'
import { labourRate } from './wishes'

export interface Dropped extends Why {
  designs: number
}

/** What every rule may ask of the search it judges in. */
interface RuleContext {
  space: Space
  /** stops that every design has, which drop none */
  isAlways: (why: Why) => boolean
  mustOwn: ReadonlySet<string>
  notInStock: (parts: readonly Part[]) => Why | null
}

/** One reason why a piece of a design may not be; null where it may. The first that speaks is the one counted. */
type Rule<Piece> = (piece: Piece, context: RuleContext) => Why | null

const headRules: Rule<Head>[] = [
  ({ source }, { space, mustOwn }) => {
    const uses = (id: string) => source.units.some(u => u.equipment.id === id)
    const missed = space.job.source?.units.find(u => mustOwn.has(u.equipment.id) && !uses(u.equipment.id))
    return missed
      ? { id: 'wish: owned', sentence: `It does not use the ${missed.equipment.name} that they own.` }
      : null
  },
  head =>
    head.unpriced ? { id: 'no price', sentence: 'The catalogue has no price for a part of it.' } : null,
  (head, { notInStock }) => notInStock(partsOf(head.source)),
  (head, { space }) =>
    space.wishes.onePerson && head.heaviestLb > onePersonLb
      ? { id: 'wish: one person', sentence: `A part weighs more than ${quantity(onePersonLb, 'lb')}.` }
      : null,
]

const methodRules: Rule<MethodChecked>[] = [
  (method, { isAlways }) => method.drops.find(why => !isAlways(why)) ?? null,
  (method, { notInStock }) => notInStock(method.devices),
  (method, { space }) =>
    space.wishes.automatic && !method.automatic
      ? { id: 'wish: by itself', sentence: 'It waits for a hand.' }
      : null,
]

const generatorRules: Rule<GeneratorChoice>[] = [
  (_, { space }) =>
    space.wishes.noGenerator ? { id: 'wish: no generator', sentence: 'No generator was asked for.' } : null,
  ({ equipment, owned }, { notInStock }) =>
    owned ? null : notInStock([{ key: equipment.id, name: equipment.name, count: 1 }]),
]

/** What a generator adds to what is against a hook-up. */
const addedRules: Rule<readonly Why[]>[] = [
  (added, { isAlways }) => added.find(why => !isAlways(why)) ?? null,
]

const sunRules: Rule<{ checked: readonly Why[]; choice: SunChoice | null }>[] = [
  ({ checked }, { isAlways }) => checked.find(why => !isAlways(why)) ?? null,
  ({ choice }, { notInStock }) =>
    choice && !choice.owned
      ? notInStock([
          { key: choice.module.id, name: choice.module.name, count: choice.series * choice.parallel },
        ])
      : null,
]

const designRules: Rule<{ price: number }>[] = [
  ({ price }, { space: { wishes } }) =>
    wishes.mostPrice !== undefined && price > wishes.mostPrice
      ? { id: 'wish: price', sentence: `It costs more than ${quantity(wishes.mostPrice, '$')}.` }
      : null,
]

/** A hook-up as a head may have it. */
interface Option {
  method: number
  price: number
  hours: number
  sheds: boolean
}

/** What is left after checks and wishes, with every reason counted in designs. */
export function racersOf(space: Space, checks: Map<number, KinChecked>, draws: number) {
  const { wishes, job } = space
  const counted = new Map<string, Dropped>()
  const always = alwaysOf(space, checks)
  const alwaysIds = new Set(always.map(a => a.id))
  const context: RuleContext = {
    space,
    isAlways: why => alwaysIds.has(why.id),
    mustOwn: wishes.useOwned ? ownedOf(job) : new Set(),
    notInStock(parts) {
      const [missing] = wishes.fromStock ? missingFrom(space.stock, parts) : []
      if (!missing) return null
      const are = missing.count > 1 ? 'are' : 'is'
      return { id: 'wish: stock', sentence: `${partText(missing)} ${are} not in stock.` }
    },
  }
  const count = (why: Why, designs: number) => {
    const one = counted.get(why.id) ?? { ...why, designs: 0 }
    one.designs += designs
    counted.set(why.id, one)
  }
  /** Whether a piece may be; where not, the designs that have it are counted. */
  const may = <Piece>(rules: readonly Rule<Piece>[], piece: Piece, designs: number): boolean => {
    for (const rule of rules) {
      const why = rule(piece, context)
      if (!why) continue
      count(why, designs)
      return false
    }
    return true
  }

  const racers: Racer[] = []
  let allowed = 0
  const perMethod = space.generators.length * space.suns.length
  for (const [h, head] of space.heads.entries()) {
    const kin = checks.get(head.kin)
    if (!kin || !may(headRules, head, perMethod * space.methods.length)) continue
    const options = kin.methods.flatMap((m, n): Option[] =>
      may(methodRules, m, perMethod) ? [optionOf(space, m, n)] : [],
    )
    if (!options.length) continue
    for (const [g, generator] of space.generators.entries()) {
      if (generator && !may(generatorRules, generator, options.length * space.suns.length)) continue
      // what a generator adds does not change with its fuel
      const byNeutral =
        kin.generators[space.generators.findIndex(c => c?.equipment === generator?.equipment)] ?? {}
      const withGenerator = options.filter(({ method }) => {
        const id = space.methods[method]
        const added = id ? (byNeutral[methodOf(id).neutral] ?? []) : []
        return may(addedRules, added, space.suns.length)
      })
      if (!withGenerator.length) continue
      for (const [s, sun] of space.suns.entries()) {
        if (!may(sunRules, { checked: kin.suns[s] ?? [], choice: sun }, withGenerator.length)) continue
        const parts = head.price + generatorCost(generator) + sunCost(sun)
        const priced = withGenerator
          .map(o => ({ ...o, price: parts + o.price }))
          .filter(o => may(designRules, o, 1))
        allowed += priced.length
        for (const sheds of [false, true]) {
          const best = unbeaten(priced.filter(o => o.sheds === sheds))
          if (!best.length) continue
          racers.push({
            head: h,
            generator: g,
            sun: s,
            sheds,
            options: best.map(({ method, price, hours }) => ({ method, price, hours })),
            weightLb: head.weightLb + (generator?.equipment.weightLb ?? 0) + sunWeightLb(sun),
            known: new Int8Array(draws).fill(-1),
            firstOpen: 0,
            plenty: 0,
            lo: 0,
            hi: 1,
          })
        }
      }
    }
  }
  return {
    racers,
    allowed,
    always,
    dropped: [...counted.values()].sort((a, b) => b.designs - a.designs || a.id.localeCompare(b.id)),
  }
}

function optionOf(space: Space, checked: MethodChecked, method: number): Option {
  const id = space.methods[method]
  return {
    method,
    price: (checked.price ?? 0) + checked.hours * labourRate,
    hours: checked.hours,
    sheds: id ? Boolean(methodOf(id).sheds) : false,
  }
}

/** Hook-ups that no other beats in price and hours; of equals the first. */
const unbeaten = (options: readonly Option[]): Option[] =>
  options.filter(
    (o, i) =>
      !options.some(
        (p, j) =>
          j !== i &&
          p.price <= o.price &&
          p.hours <= o.hours &&
          (p.price < o.price || p.hours < o.hours || j < i),
      ),
  )

/** Stops that stand in the way of every design alike: not the design’s fault, so they drop none. */
function alwaysOf(space: Space, checks: Map<number, KinChecked>): Why[] {
  const [first, ...rest] = space.kins.flatMap(k =>
    (checks.get(k)?.methods ?? [])
      .map(m => m.drops)
      .filter(drops => !drops.some(d => d.id === 'hook-up' || d.id === 'unserved')),
  )
  return (first ?? []).filter(why => rest.every(drops => drops.some(d => d.id === why.id)))
}
