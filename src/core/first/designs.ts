import type { Want } from '../ask/brief'
import { effortOf, withMethod } from '../assess/compare-methods'
import { evaluate } from '../assess/evaluate'
import { countedLoads } from '../assess/needs'
import type { Equipment } from '../equipment'
import type { UnitEquipment } from '../equipment/source-kinds'
import { type Labour, usualLabour } from '../hookup/labour'
import type { MethodId } from '../hookup/method'
import type { Job } from '../job/schema'
import type { Found, SearchResult } from '../search/front'
import { plannedDesign } from '../search/planned'
import { search } from '../search/search'
import { generatorCost, type Head, jobWith, type Space, sourceWith, spaceOf } from '../search/space'
import { alone } from '../search/tasks'
import { labourRate, type Wishes } from '../search/wishes'
import { likelyOwned } from '../source/owned'
import { storeOf } from '../source/store'
import { type FirstDesign, type FirstDesigns, firstDraws, lasts } from './designs-text'
import { imagined, waiting } from './imagined'
import { unseenFraction } from './unseen'

/** Stores that hold so much of the need are worth a look. */
const least = 0.75
/** Sources simulated at most. */
const mostHeads = 24

/**
 * Two or three provisional designs of a catalogue for what is wanted: the cheapest that lasts, one that costs less, one that lasts more often
 * or weighs less. Judged by the checks and the simulation of the whole search, over fewer designs and draws. Prices hold devices, small parts
 * and hours at their least and most.
 */
export async function firstDesigns(
  job: Job,
  catalogue: readonly Equipment[],
  { labour = usualLabour, rateUsd = labourRate, seed = 1 }: Pricing = {},
): Promise<FirstDesigns> {
  if (!countedLoads({ ...imagined(job), source: undefined }).length)
    return { designs: [], without: [], sentence: 'Nothing that draws is wanted yet.' }
  const without: string[] = []
  let here = job
  for (;;) {
    const space = narrowed(spaceOf(withOwned(imagined(here), catalogue), catalogue, wishesOf(job, labour)))
    const got = space.heads.length ? await search(space, alone(space), { seed, draws: firstDraws }) : null
    const front = got?.front ?? []
    const designs = chosen(front).map(({ found, why }) => told(job, space, found, why, { labour, rateUsd }))
    if (designs.some(d => d.chance >= lasts)) return { designs, without, sentence: '' }
    const heaviest = without.length < mostWithout ? heaviestOf(here) : null
    if (!heaviest)
      return designs.length
        ? { designs, without, sentence: '' }
        : {
            designs: [],
            without: [],
            sentence: `Nothing in the catalogue carries these together for so long.${whyNot(got)} Ask for less, or for a shorter time.`,
          }
    without.push(heaviest.name)
    here = {
      ...here,
      brief: { ...here.brief, wants: here.brief.wants.filter(w => w.id !== heaviest.id) },
    }
  }
}

/** The commonest reason against, of those that a customer’s wishes or house give. */
function whyNot(got: SearchResult | null): string {
  const [first] = (got?.dropped ?? []).filter(d => d.id !== 'no price' && !d.sentence.startsWith('It needs'))
  return first ? ` Most often: ${first.sentence}` : ''
}

interface Pricing {
  labour?: Labour
  rateUsd?: number
  seed?: number
}

const wishesOf = ({ brief }: Job, labour: Labour): Wishes => ({
  automatic: brief.automatic === 'must',
  useOwned: false,
  noGenerator: brief.noise === 'none',
  onePerson: false,
  fromStock: false,
  labour,
})

/** Things left out at most, to see whether the rest can be borne. */
const mostWithout = 3

/** The want that asks most, by energy or by what it draws at once, before those that matter more; null while there is nothing to spare. */
function heaviestOf(job: Job): Want | null {
  const asking = waiting(job)
  if (asking.length < 2) return null
  const served = countedLoads({ ...imagined(job), source: undefined })
  const all = served.reduce((sum, l) => sum + l.drawn.meanW, 0) || 1
  const largest = Math.max(1, ...served.map(l => l.VA))
  const weight = (want: Want) => {
    const own = served.filter(l => want.loads?.some(w => w.load.id === l.load.id))
    const energy = own.reduce((sum, l) => sum + l.drawn.meanW, 0) / all
    return (energy + Math.max(0, ...own.map(l => l.VA)) / largest) * (want.nice ? 2 : 1)
  }
  return asking.reduce((a, b) => (weight(b) > weight(a) ? b : a))
}

/** What the customer says is there already costs nothing. */
function withOwned(job: Job, catalogue: readonly Equipment[]): Job {
  const unit = catalogue.find(
    (e): e is Extract<Equipment, UnitEquipment> => e.kind === 'station' && likelyOwned(e, job.brief),
  )
  if (!unit || job.source) return job
  return {
    ...job,
    source: {
      units: [{ id: 'u1', equipment: unit, expansionUnits: 0, owned: true }],
      arrangement: 'tied',
      liveLeg: 'L1',
    },
  }
}

/** The part of a space that a first answer looks at: what carries the loads, holds about the energy, and is connected in the usual ways. */
function narrowed(space: Space): Space {
  const { job } = space
  const served = countedLoads({ ...job, source: undefined })
  const meanW = served.reduce((sum, l) => sum + l.drawn.meanW, 0)
  const carries = new Map<number, boolean>()
  for (const kin of space.kins) {
    const head = space.heads[kin]
    if (!head) continue
    // by the source alone: the way in is chosen for it
    const bare: Job = { ...jobWith(space, head.source), hookup: { method: 'undecided', bondingPlug: false } }
    const { balance } = evaluate(bare, { withCourse: false })
    carries.set(
      kin,
      !balance.some(l => ['L1', 'L2', 'output', 'start', 'v240'].includes(l.id) && l.verdict === 'short'),
    )
  }
  const both = new Set(served.map(l => l.need.leg)).size > 1
  const has240 = served.some(l => l.need.volts === 240)
  const rated = space.heads.flatMap((head, h) => {
    if (!carries.get(head.kin)) return []
    const { arrangement } = head.source
    // one leg leaves the other dark; a transformer is for 240 V
    if ((arrangement === 'one-leg' && both) || (arrangement === 'autotransformer' && !has240)) return []
    return [{ head, h, share: holds(job, head, meanW) }]
  })
  const top = Math.max(0, ...rated.map(r => r.share))
  const kept = rated
    .filter(r => r.share >= Math.min(least, top * 0.7))
    .sort((a, b) => a.head.price - b.head.price)
    .slice(0, mostHeads)
  // where hardly a store bears it alone, a generator may
  const generator = space.generators
    .filter(g => g !== null)
    .sort((a, b) => generatorCost(a) - generatorCost(b))
    .slice(0, 1)
  const asks = job.brief.generator === 'yes' || job.outage.hours > 30 || top < 1
  const wishes = space.wishes
  const circuits = job.panels.flatMap(p => p.circuits).filter(c => c.picked).length
  const usual: MethodId[] = wishes.automatic
    ? ['critical-subpanel', 'managed-panel']
    : [
        'interlocked-inlet',
        'multi-circuit-switch',
        'critical-subpanel',
        ...(job.panels.some(p => p.circuits.some(c => c.traced))
          ? (['sub-panel-interlock', 'managed-panel'] as const)
          : []),
        ...(circuits === 1 ? (['single-circuit-switch', 'cord-and-plug'] as const) : []),
      ]
  const kinOf = new Map<number, number>()
  const heads = kept.map(({ head }, n) => {
    if (!kinOf.has(head.kin)) kinOf.set(head.kin, n)
    return { ...head, kin: kinOf.get(head.kin) ?? n }
  })
  const generators = [null, ...(asks && !wishes.noGenerator ? generator : [])]
  return {
    ...space,
    heads,
    kins: [...kinOf.values()],
    methods: usual,
    generators,
    suns: [null],
    raw: heads.length * usual.length * generators.length,
  }
}

/** What a store holds against what the outage takes, on average. */
function holds({ outage }: Job, { source }: Head, meanW: number): number {
  const store = storeOf(source, outage.deratingFraction, meanW)
  const usable = store.capacityWh * store.deratingFraction * (outage.startFraction - outage.reserveFraction)
  const needW = store.idleW + store.transformerIdleW + meanW / store.efficiencyFraction
  return usable / Math.max(1, needW * outage.hours)
}

type Why = FirstDesign['why']

/** Three of a front at most, each for a reason of its own. */
function chosen(front: readonly Found[]): { found: Found; why: Why }[] {
  const byPrice = [...front].sort((a, b) => a.price - b.price)
  const good = byPrice.filter(f => f.chance.fraction >= lasts)
  const [first] = good.length
    ? good
    : [...front].sort((a, b) => b.chance.fraction - a.chance.fraction || a.price - b.price)
  if (!first) return []
  const out: { found: Found; why: Why }[] = [
    { found: first, why: good.length ? 'lasts, at the least price' : 'lasts most often' },
  ]
  const add = (found: Found | undefined, why: Why) => {
    if (found && out.length < 3 && !out.some(o => o.found === found)) out.push({ found, why })
  }
  add(
    byPrice.find(f => f.price < 0.9 * first.price && f.chance.fraction >= 0.4),
    'costs less, lasts less often',
  )
  add(
    good.find(f => f.chance.fraction > first.chance.fraction),
    'lasts most often',
  )
  add(
    [...good].sort((a, b) => a.weightLb - b.weightLb).find(f => f.weightLb < 0.9 * first.weightLb),
    'lightest that lasts',
  )
  add(
    [...good].sort((a, b) => a.hours - b.hours).find(f => f.hours < 0.8 * first.hours),
    'least work',
  )
  return out.sort((a, b) => a.found.price - b.found.price)
}

function told(
  job: Job,
  space: Space,
  found: Found,
  why: Why,
  { labour, rateUsd }: { labour: Labour; rateUsd: number },
): FirstDesign {
  const head = space.heads[found.design.head]
  const method = space.methods[found.design.method]
  const generator = space.generators[found.design.generator] ?? null
  const source = head && sourceWith(head, generator, null)
  if (!head || !method || !source) throw new Error('a design that was found is one of its space')
  const circuits = countedLoads({ ...space.job, source: undefined })
  const count = new Set(circuits.map(l => l.need.circuit.id)).size
  const { labourHours, price } = effortOf(plannedDesign(space, source, method).job, count, labour)
  const devices = head.price + generatorCost(generator)
  const low = devices + (price?.least ?? 0) + labourHours.least * rateUsd
  const high = devices + ((price?.most ?? 0) + labourHours.most * rateUsd) * (1 + unseenFraction)
  const over = job.brief.budget !== undefined && low > job.brief.budget
  return {
    name: found.name,
    why,
    ...(over && { overBudget: true as const }),
    price: { low, high },
    weightLb: found.weightLb,
    chance: found.chance.fraction,
    take: {
      op: 'adoptDesign',
      name: found.name.slice(0, 200),
      source,
      hookup: withMethod({ ...job, source }, method, space.catalogue).hookup,
    },
  }
}
