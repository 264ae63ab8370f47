import { decisive } from '../assess/balance'
import type { Evaluated } from '../assess/evaluated'
import { coincidence, named, type ServedLoad, type StartNeed } from '../assess/needs'
import { type MotorType, motorFacts } from '../loads/motor-types'
import { toPlan } from '../plan/change'
import { continuousShare, limitWords, ratingOf, startsWithA } from '../source/output'
import { shortName } from '../source/short-name'
import { lossesOf } from '../source/store'
import { quantity, together } from '../units/format'
import type { Fix, Said } from './finding'

/** Power and start. */

const dropCircuitOf = (load: ServedLoad): Fix => ({
  label: `Drop ${load.need.position} (${load.load.name})`,
  operations: [{ op: 'selectCircuit', circuitId: load.need.circuit.id, picked: false }],
})

export function powerOver({ job, figures }: Evaluated): Said[] {
  const { output, loads } = figures
  const sum = figures.together.both
  // through an autotransformer its own check speaks
  if (!job.source || !output || job.source.arrangement === 'autotransformer') return []
  const { needVA, haveVA, lasting } = decisive(sum, output.totalW, output.lasting.totalW)
  if (needVA <= haveVA) return []
  const real = lasting || sum.W > output.totalW
  const [largest] = [...loads].filter(l => !lasting || l.lasting).sort((a, b) => b.VA - a.VA)
  const limit = limitWords(output, job.source, lasting ? output.lasting.limitedBy : output.limitedBy)
  return [
    {
      id: real ? 'power.over' : 'va.over',
      severity: 'stop',
      sentence: lasting
        ? `${quantity(needVA, 'VA')} run together for three hours or more; ${limit} carries ${quantity(haveVA, 'VA')} of that, of ${quantity(output.totalW, 'VA')} at its rating.`
        : `${real ? quantity(sum.W, 'W') : quantity(sum.VA, 'VA')} run together; ${limit} carries ${quantity(output.totalW, real ? 'W' : 'VA')}.`,
      why: real
        ? 'It trips, and every circuit goes dark.'
        : 'Poor power factor fills the inverter before the watts do.',
      remedy: 'Drop a circuit, let a person switch one by hand, or choose a larger source.',
      article: 'NEC 702.4',
      target: { view: 'panel', circuitIds: largest ? [largest.need.circuit.id] : [] },
      fixes: largest ? [dropCircuitOf(largest)] : [],
    },
  ]
}

/** What the loads of one circuit draw together against its own breaker, whatever feeds it. */
export function branchOverload({ figures }: Evaluated): Said[] {
  const circuits = [...new Set(figures.loads.map(l => l.need))]
  return circuits.flatMap((need): Said[] => {
    const own = figures.loads.filter(l => l.need === need)
    const { breakerA } = need.circuit
    const A = (loads: readonly ServedLoad[]) => coincidence(loads, 'both').VA / need.volts
    const [all, long] = [A(own), A(own.filter(l => l.lasting))]
    const over = all > breakerA
    if (!over && long <= continuousShare * breakerA) return []
    return [
      {
        id: 'branch.overload',
        severity: 'fix',
        sentence: over
          ? `${named(need)}: its loads draw ${quantity(all, 'A')} together; its breaker is ${breakerA} A.`
          : `${named(need)}: ${quantity(long, 'A')} run for three hours or more; a ${breakerA} A breaker carries ${quantity(continuousShare * breakerA, 'A')} of that.`,
        why: 'Its own breaker opens, on the utility as on the source, and takes along what must run.',
        remedy: 'Put one of the loads on another circuit, or let a person switch it by hand.',
        target: { view: 'panel', circuitIds: [need.circuit.id] },
        fixes: [],
      },
    ]
  })
}

const motorOf = ({ load }: ServedLoad): MotorType | undefined =>
  load.motorType ?? (load.nature === 'compressor' ? 'compressor' : undefined)
const softStartOf = (motor: MotorType | undefined) => motorFacts[motor ?? 'unknown'].softStart

export function startOver(evaluated: Evaluated): Said[] {
  const { job, figures } = evaluated
  const { source } = job
  if (!source) return []
  const most = figures.output?.startsA ?? undefined
  const asked = (s: StartNeed) => startsWithA(source, s.startA, s.load.need.volts)
  const started = figures.starts
    .filter(s => s.needVA > s.haveVA || (most !== undefined && asked(s) > most))
    .map((s): Said => {
      const { load } = s
      const motor = motorOf(load)
      const softStart = load.load.start?.method === 'locked-rotor' && !load.load.start.softStartFraction
      const soft: Fix[] =
        softStart && softStartOf(motor) === 'suits' && load.load.start?.method === 'locked-rotor'
          ? [
              {
                label: 'Plan a soft starter (40 % of locked-rotor amps)',
                operations: [
                  toPlan({
                    kind: 'soft-start',
                    circuitId: load.need.circuit.id,
                    loadId: load.load.id,
                    softStartFraction: 0.4,
                  }),
                ],
              },
            ]
          : []
      const sentence =
        s.needVA > s.haveVA
          ? `${load.load.name} on ${load.need.position} asks for ${quantity(s.needVA, 'VA')} at its start${s.scope === 'both' ? '' : ` on ${s.scope}`}, ${quantity(s.haveVA, 'VA')} of surge are there.`
          : `${load.load.name} on ${load.need.position} starts with ${quantity(s.startA, 'A')}${asked(s) > s.startA ? `, twice that at the 120 V unit` : ''}; the ${shortName(source)} starts at most ${quantity(most ?? 0, 'A')} locked rotor.`
      return {
        id: 'start.over',
        severity: 'stop',
        sentence,
        why: 'The motor stalls and heats, or the source trips, each time it tries.',
        remedy:
          softStartOf(motor) === 'does not suit'
            ? 'Fewer loads meanwhile, or a source with more surge; a soft starter does not suit this motor.'
            : softStartOf(motor) === 'suits'
              ? 'A soft starter, fewer loads meanwhile, or a source with more surge.'
              : 'Fewer loads meanwhile, or a source with more surge. Say which motor it is: a soft starter suits compressors and three-wire motors only.',
        target: { view: 'panel', circuitIds: [load.need.circuit.id] },
        fixes: [...soft, dropCircuitOf(load)],
      }
    })
  return [...started, ...transformerInrush(evaluated)]
}

/** An autotransformer is switched on by its unit, alone: its inrush must not be more than the unit surges. */
function transformerInrush({ job }: Evaluated): Said[] {
  const { source } = job
  const inrushA = source?.autotransformer?.inrushA
  const [unit] = source?.units ?? []
  if (source?.arrangement !== 'autotransformer' || inrushA === undefined || !unit) return []
  const { surgeW } = ratingOf(unit.equipment)
  if (inrushA * 120 <= surgeW) return []
  return [
    {
      id: 'start.over',
      severity: 'stop',
      sentence: `The ${source.autotransformer?.name} draws ${quantity(inrushA, 'A')} as it is switched on, ${quantity(inrushA * 120, 'VA')}; the ${unit.equipment.name} surges ${quantity(surgeW, 'W')}.`,
      why: 'The unit trips on the transformer before any load is on.',
      remedy: 'A transformer with a soft start of its own, or a unit with more surge.',
      target: { view: 'source', field: 'arrangement' },
      fixes: [],
    },
  ]
}

export function startTogether({ figures }: Evaluated): Said[] {
  const motors = figures.starts.filter(s => !s.load.load.byHand)
  const [first, second] = motors
  if (!first || !second || first.needVA > first.haveVA) return []
  const bothVA = first.needVA + second.startVA
  if (bothVA <= first.haveVA) return []
  return [
    {
      id: 'start.together',
      severity: 'mind',
      sentence: `${first.load.load.name} and ${second.load.load.name} may start in the same second after switch-over: ${quantity(bothVA, 'VA')} against ${quantity(first.haveVA, 'VA')} of surge.`,
      why: 'Each starts alone, not both at once.',
      remedy: 'Close their breakers one by one, a minute apart; put it on the card.',
      target: { view: 'panel', circuitIds: [first.load.need.circuit.id, second.load.need.circuit.id] },
      fixes: [],
    },
  ]
}

/** Pairs of loads switched by hand that exceed the output together, though each alone does not. */
export function pairsToAvoid({ figures }: Pick<Evaluated, 'figures'>): [ServedLoad, ServedLoad][] {
  const { output, loads } = figures
  if (!output) return []
  const steady = loads.filter(l => !l.load.byHand)
  const base = coincidence(steady, 'both').VA
  const byHand = loads.filter(l => l.load.byHand && base + l.VA <= output.totalW)
  return byHand.flatMap((a, i) =>
    byHand
      .slice(i + 1)
      .filter(b => base + a.VA + b.VA > output.totalW)
      .map(b => [a, b] as [ServedLoad, ServedLoad]),
  )
}

/** Pairs that a person said must not run together, both of which are served. */
export function pairsForbidden({ figures }: Pick<Evaluated, 'figures'>): [ServedLoad, ServedLoad][] {
  const { loads } = figures
  return loads.flatMap((a, i) =>
    loads
      .slice(i + 1)
      .filter(b => a.load.notWith?.includes(b.load.id) || b.load.notWith?.includes(a.load.id))
      .map(b => [a, b] as [ServedLoad, ServedLoad]),
  )
}

export function pairAvoid(evaluated: Evaluated): Said[] {
  const over = pairsToAvoid(evaluated)
  const said = pairsForbidden(evaluated).filter(([a, b]) => !over.some(p => p.includes(a) && p.includes(b)))
  const pairs = [...over, ...said]
  if (!pairs.length) return []
  const circuitIds = [...new Set(pairs.flat().map(l => l.need.circuit.id))]
  return [
    {
      id: 'pair.avoid',
      severity: 'mind',
      sentence: `Not at the same time: ${together(pairs.map(([a, b]) => `${a.load.name} with ${b.load.name}`))}.`,
      why: over.length
        ? `Each runs alone; together they trip the source.${said.length ? ' Some were set apart by hand.' : ''}`
        : 'They were set apart on this job.',
      remedy: 'It stands on the card; tell the people who live there.',
      target: { view: 'panel', circuitIds },
      fixes: [],
    },
  ]
}

export function idleDominates({ job, figures }: Evaluated): Said[] {
  const { run, loads } = figures
  const { source } = job
  const idleW = source ? source.units.reduce((sum, u) => sum + lossesOf(u.equipment).idleW, 0) : 0
  if (!run || !loads.length || idleW <= 0.25 * run.batteryW) return []
  return [
    {
      id: 'idle.dominates',
      severity: 'mind',
      sentence: `The ${source ? shortName(source) : 'source'}’s own draw of ${quantity(idleW, 'W')} eats ${quantity(idleW / run.batteryW, 'fraction')} of the energy.`,
      why: 'Over a long outage the inverter itself is one of the larger loads.',
      remedy: 'A smaller unit, or switching it off for hours when nothing needs it.',
      target: { view: 'source' },
      fixes: [],
    },
  ]
}

export function compressorWait({ figures }: Evaluated): Said[] {
  const compressors = figures.loads.filter(l => l.load.nature === 'compressor')
  if (!compressors.length) return []
  return [
    {
      id: 'compressor.wait',
      severity: 'mind',
      sentence: `${together(compressors.map(l => l.load.name))}: after running, a compressor needs minutes of rest before it starts again.`,
      why: 'Started against pressure it stalls and trips the source.',
      remedy: 'Leave the circuit off for five minutes when switching over.',
      target: { view: 'panel', circuitIds: compressors.map(l => l.need.circuit.id) },
      fixes: [],
    },
  ]
}
