import { conditionsOf } from '../ask/outage-asked'
import { wayLimit } from '../hookup/way'
import type { Job } from '../job/schema'
import { continuousHours } from '../loads/lasting'
import { type OnAverage, onAverage } from '../outage/on-average'
import type { Leg } from '../panel/leg'
import { arrangementNames, opposed } from '../source/arrangement'
import { limitWords, type Output, outputOf } from '../source/output'
import { shortName } from '../source/short-name'
import { figure, quantity, sentenceStart, together } from '../units/format'
import { fromJob, type UnitOfMeasure, type Working } from '../working'
import { type MeanDraw, type RunTime, runOf } from './energy'
import {
  type CircuitNeed,
  type Coincidence,
  coincidence,
  coincidenceWorking,
  meanLoad,
  named,
  type ServedLoad,
  type StartNeed,
  shareOn,
  startNeeds,
  startWorking,
  supplyOf,
} from './needs'

/** In words; never more than that the figures meet or miss. */
export type BalanceVerdict = 'enough' | 'tight' | 'short' | 'none needed' | 'cannot tell'

export interface BalanceLine {
  id: 'hours' | 'energy' | 'L1' | 'L2' | 'output' | 'start' | 'v240'
  label: string
  unit: UnitOfMeasure
  need: number | null
  have: number | null
  margin: number | null
  verdict: BalanceVerdict
  sentence: string
  /** of the output: what limits it, rated and for hours */
  limit?: string
  working: Working
}

/** The figures behind the balance, for the checks. */
export interface Figures {
  loads: ServedLoad[]
  meanLoadW: number
  mean: MeanDraw
  together: Record<Leg | 'both', Coincidence>
  output: Output | null
  starts: StartNeed[]
  run: RunTime | null
  /** the run with sun, generator and what is let go; null where the store alone counts */
  course: OnAverage | null
}

/** Hours that the picked circuits last on average; null without a store. */
export const hoursOf = ({ run, course }: Pick<Figures, 'run' | 'course'>): number | null =>
  course?.hours ?? run?.hours ?? null

/** Less than this share above the need is called tight. */
const tightShare = 0.1

function verdictOf(need: number, have: number): BalanceVerdict {
  if (need === 0) return 'none needed'
  if (have < need) return 'short'
  return have < need * (1 + tightShare) ? 'tight' : 'enough'
}

type Compared = Pick<BalanceLine, 'id' | 'label' | 'unit' | 'sentence' | 'working'>
const compared = (about: Compared, need: number, have: number): BalanceLine => ({
  ...about,
  need,
  have,
  margin: have - need,
  verdict: verdictOf(need, have),
})
const unknown = (about: Compared, need: number | null): BalanceLine => ({
  ...about,
  need,
  have: null,
  margin: null,
  verdict: need === 0 ? 'none needed' : 'cannot tell',
})

/** What the job needs against what the design has: one line for each quantity, each with its working. */
export function balanceOf(
  job: Job,
  needs: readonly CircuitNeed[],
  loads: ServedLoad[],
  withCourse = true,
): { lines: BalanceLine[]; figures: Figures } {
  const { source } = job
  const supply = supplyOf(job)
  const split = supply !== null && opposed(supply.arrangement)
  const output =
    source && supply ? outputOf({ ...source, arrangement: supply.arrangement }, wayLimit(job)) : null
  const sums = {
    L1: coincidence(loads, 'L1'),
    L2: coincidence(loads, 'L2'),
    both: coincidence(loads, 'both'),
  }
  const mean = { ...meanLoad(loads, conditionsOf(job)), legW: meanByLeg(loads) }
  const starts = startNeeds(loads, split, {
    totalVA: output?.surgeW ?? Infinity,
    legVA: output?.legSurgeW ?? Infinity,
  })
  const energy = energyLines(job, mean, withCourse)
  return {
    lines: [
      ...energy.lines,
      legLine(job, 'L1', loads, sums.L1, output),
      legLine(job, 'L2', loads, sums.L2, output),
      outputLine(job, loads, sums.both, output),
      startLine(job, starts[0], output),
      v240Line(job, needs),
    ],
    figures: {
      loads,
      meanLoadW: mean.W,
      mean,
      together: sums,
      output,
      starts,
      run: energy.run,
      course: energy.course,
    },
  }
}

/**
 * What runs together against what is there: all of it against the rating, and what lasts three hours or more against four
 * fifths of it. Whichever is fuller decides.
 */
export function decisive(
  sum: Pick<Coincidence, 'VA' | 'lastingVA'>,
  ratedVA: number,
  lastingVA: number,
): { needVA: number; haveVA: number; lasting: boolean } {
  const lasting = sum.lastingVA * ratedVA > sum.VA * lastingVA
  return lasting
    ? { needVA: sum.lastingVA, haveVA: lastingVA, lasting }
    : { needVA: sum.VA, haveVA: ratedVA, lasting }
}

/** The average load of each leg, W: half of a 240 V one on each. */
const meanByLeg = (loads: readonly ServedLoad[]): Record<Leg, number> => {
  const on = (leg: Leg) => loads.reduce((sum, l) => sum + l.drawn.meanW * shareOn(leg, l), 0)
  return { L1: on('L1'), L2: on('L2') }
}

function energyLines(
  job: Job,
  mean: MeanDraw,
  withCourse: boolean,
): { lines: BalanceLine[]; run: Figures['run']; course: Figures['course'] } {
  const { source, outage } = job
  const hours = { id: 'hours', label: 'Run time', unit: 'h' } as const
  const energy = { id: 'energy', label: 'Energy', unit: 'Wh' } as const
  const run = runOf(job, mean)
  if (!run) {
    const sentence = source
      ? `${sentenceStart(shortName(source))} stores nothing.`
      : 'No source is chosen yet.'
    return {
      lines: [
        unknown({ ...hours, sentence, working: mean.working }, outage.hours),
        unknown({ ...energy, sentence, working: mean.working }, mean.W * outage.hours),
      ],
      run: null,
      course: null,
    }
  }
  const { batteryW, usableWh, needWh, strandedWh } = run
  const course = withCourse ? onAverage(job, batteryW) : null
  const had = course?.hours ?? run.hours
  const nothing = mean.W === 0
  const hoursSentence = nothing
    ? 'Nothing that draws power is picked: only the inverter’s own draw runs.'
    : course
      ? course.sentence(run.hours)
      : had >= outage.hours
        ? `Lasts ${quantity(had, 'h')}; ${quantity(outage.hours, 'h')} asked.`
        : `Lasts ${quantity(had, 'h')}; ${quantity(outage.hours - had, 'h')} short of what was asked.`
  const energyWorking: Working = {
    title: 'Energy for the outage',
    formula: ['needed = drawn from the battery × hours asked', 'against the usable energy'],
    inputs: [
      { label: 'Drawn from the battery', value: batteryW, unit: 'W', working: run.working },
      { label: 'Hours asked', value: outage.hours, unit: 'h', provenance: fromJob },
    ],
    steps: [
      {
        label: 'Needed',
        value: needWh,
        unit: 'Wh',
        arithmetic: `${figure(batteryW)} × ${figure(outage.hours)}`,
      },
      { label: 'Usable', value: usableWh, unit: 'Wh' },
      ...(course?.broughtBy
        ? [
            {
              label: `Brought by ${course.broughtBy}, on average`,
              value: course.broughtWh,
              unit: 'Wh' as const,
            },
          ]
        : []),
    ],
    references: [],
    ruleOfThumb: `Average load × hours, plus a tenth for losses: ${quantity(mean.W * outage.hours * 1.1, 'Wh')}`,
    notCovered: run.working.notCovered,
  }
  const energySentence = nothing
    ? 'Only the inverter’s own draw is needed.'
    : `${quantity(needWh, 'Wh')} from the battery for ${quantity(outage.hours, 'h')}, ${quantity(usableWh, 'Wh')} usable${course && course.broughtWh > 0 ? `, ${quantity(course.broughtWh, 'Wh')} brought by ${course.broughtBy}` : ''}${strandedWh > 0 ? `, ${quantity(strandedWh, 'Wh')} stranded in the other battery` : ''}.`
  return {
    lines: [
      compared(
        { ...hours, sentence: hoursSentence, working: course ? courseWorking(course, run) : run.working },
        outage.hours,
        had,
      ),
      compared(
        { ...energy, sentence: energySentence, working: energyWorking },
        needWh,
        usableWh + (course?.broughtWh ?? 0),
      ),
    ],
    run,
    course,
  }
}

/** The run time where more than the store counts: of the mean course, with the closed form beneath. */
const courseWorking = (
  course: NonNullable<Figures['course']>,
  run: NonNullable<Figures['run']>,
): Working => ({
  title: 'Run time, on average',
  formula: [
    'from the battery in each step = own draw + load ÷ efficiency − sun − generator, in steps of ten minutes',
    'hours = until the store is down to its reserve; where it is not, what is left then at the average draw on top',
  ],
  inputs: [
    { label: 'The store alone, closed form', value: run.hours, unit: 'h', working: run.working },
    ...(course.broughtBy
      ? [{ label: `Brought by ${course.broughtBy}`, value: course.broughtWh, unit: 'Wh' as const }]
      : []),
  ],
  steps: [{ label: 'Lasts', value: course.hours, unit: 'h' }],
  references: [],
  notCovered: ['Chance: the outage shows how likely it lasts, and the course hour by hour.'],
})

function legLine(
  job: Job,
  leg: Leg,
  loads: readonly ServedLoad[],
  sum: Coincidence,
  output: Output | null,
): BalanceLine {
  const about = { id: leg, label: `Leg ${leg}`, unit: 'VA' } as const
  const supply = supplyOf(job)
  const shared = supply?.arrangement === 'tied'
  const [ratedVA, longVA] = !output
    ? [0, 0]
    : shared
      ? [output.totalW, output.lasting.totalW]
      : [output.legW[leg], output.lasting.legW[leg]]
  const working = withLimit(
    coincidenceWorking(`Leg ${leg}, running together`, loads, leg),
    ratedVA,
    longVA,
    output,
  )
  const idle = (sentence: string): BalanceLine => ({
    ...about,
    need: 0,
    have: 0,
    margin: 0,
    verdict: 'none needed',
    sentence,
    working,
  })
  if (!supply || !output) return unknown({ ...about, sentence: 'No source is chosen yet.', working }, sum.VA)
  if (!supply.throughPanel) return idle(`Appliances are plugged in directly: ${leg} is not fed.`)
  if (supply.arrangement === 'one-leg' && supply.liveLeg !== leg)
    return idle(`${leg} is dead with one leg live.`)
  const { needVA, haveVA, lasting } = decisive(sum, ratedVA, longVA)
  const what = `${quantity(needVA, 'VA')} ${lasting ? 'for hours' : 'together'} on ${leg}`
  const sentence = shared
    ? `${what}; both legs share ${quantity(haveVA, 'VA')}.`
    : `${what}, ${quantity(haveVA, 'VA')} available.`
  return compared({ ...about, sentence, working }, needVA, haveVA)
}

function outputLine(
  job: Job,
  loads: readonly ServedLoad[],
  sum: Coincidence,
  output: Output | null,
): BalanceLine {
  const about = { id: 'output', label: 'Output', unit: 'VA' } as const
  const working = withLimit(
    coincidenceWorking('Whole output, running together', loads, 'both'),
    output?.totalW ?? 0,
    output?.lasting.totalW ?? 0,
    output,
  )
  if (!job.source || !output)
    return unknown({ ...about, sentence: 'No source is chosen yet.', working }, sum.VA)
  const { needVA, haveVA, lasting } = decisive(sum, output.totalW, output.lasting.totalW)
  const by = sum.byHand ? `, with ${sum.byHand.load.name} on` : ''
  const sentence = `${lasting ? `${quantity(needVA, 'VA')} for three hours or more` : `${quantity(sum.VA, 'VA')} together${by}`}. ${outputWords(output, job.source)}`
  return {
    ...compared({ ...about, sentence, working }, needVA, haveVA),
    limit: outputWords(output, job.source),
  }
}

/** `Output: 1,800 VA, by the 15 A breaker at 2; 1,440 VA of it for hours.` */
export function outputWords(output: Output, source: NonNullable<Job['source']>): string {
  const { totalW, lasting } = output
  const rated = `Output: ${quantity(totalW, 'VA')}, by ${limitWords(output, source)}`
  if (lasting.totalW >= totalW) return `${rated}, for hours too.`
  const other =
    lasting.limitedBy === output.limitedBy ? '' : `, by ${limitWords(output, source, lasting.limitedBy)}`
  return `${rated}; ${quantity(lasting.totalW, 'VA')} of it for hours${other}.`
}

function withLimit(working: Working, ratedVA: number, longVA: number, output: Output | null): Working {
  if (!output) return working
  return {
    ...working,
    steps: [
      ...working.steps,
      {
        label: `There for less than ${continuousHours} h (limited by the ${output.limitedBy === 'way' ? output.way?.name : output.limitedBy}${output.outlet ? `; ${output.outlet.type} outlet, ${output.outlet.amps} A` : ''})`,
        value: ratedVA,
        unit: 'VA',
      },
      {
        label: `There for ${continuousHours} h or more (limited by the ${output.lasting.limitedBy === 'way' ? output.way?.name : output.lasting.limitedBy})`,
        value: longVA,
        unit: 'VA',
      },
    ],
    references: [
      ...working.references,
      'What runs for three hours or more: at most 80 % of the outlet, and of whatever else stands on the way, NEC 210.20(A), 215.3; an inverter’s own rating holds for hours',
    ],
    notCovered: [...working.notCovered, 'The rating in watts is taken as the limit in volt-amps too.'],
  }
}

const noStart: Working = {
  title: 'Start',
  formula: [
    'needed = what already runs + the start of a motor',
    'no picked load is a motor or has a start figure: nothing is needed',
  ],
  inputs: [],
  steps: [],
  references: [],
  notCovered: ['The short inrush of electronic loads.'],
}

function startLine(job: Job, worst: StartNeed | undefined, output: Output | null): BalanceLine {
  const about = { id: 'start', label: 'Start', unit: 'VA' } as const
  if (!worst)
    return {
      ...about,
      need: 0,
      have: output?.surgeW ?? null,
      margin: null,
      verdict: 'none needed',
      sentence: 'No picked load has a start to speak of.',
      working: noStart,
    }
  const { load } = worst
  const sentence = `${load.load.name} starts with ${quantity(worst.startVA, 'VA')} on top of ${quantity(worst.runningVA, 'VA')} running.`
  if (!job.source) return unknown({ ...about, sentence, working: startWorking(worst) }, worst.needVA)
  return compared({ ...about, sentence, working: startWorking(worst) }, worst.needVA, worst.haveVA)
}

function v240Line(job: Job, needs: readonly CircuitNeed[]): BalanceLine {
  const wanted = needs.filter(n => n.circuit.picked && n.volts === 240)
  const about = { id: 'v240', label: '240 V', unit: 'circuits', working: v240Working(job, wanted) } as const
  const names = together(wanted.map(named))
  if (!wanted.length)
    return {
      ...about,
      need: 0,
      have: null,
      margin: null,
      verdict: 'none needed',
      sentence: 'No 240 V circuit is picked.',
    }
  if (!job.source)
    return unknown({ ...about, sentence: `${names} at 240 V; no source is chosen yet.` }, wanted.length)
  const served = wanted.filter(n => n.served).length
  const sentence =
    served === wanted.length
      ? `${names}: 240 V is there.`
      : `${names} at 240 V, which ${arrangementNames[job.source.arrangement]} does not give.`
  return {
    ...about,
    need: wanted.length,
    have: served,
    margin: served - wanted.length,
    verdict: served < wanted.length ? 'short' : 'enough',
    sentence,
  }
}

function v240Working(job: Job, wanted: readonly CircuitNeed[]): Working {
  const { source } = job
  return {
    title: '240 V',
    formula: [
      'a two-pole circuit gets 240 V only from two legs of opposite phase: split phase',
      'needed = picked two-pole circuits; had = those that get it',
    ],
    inputs: [
      {
        label: 'Arrangement',
        value: source ? arrangementNames[source.arrangement] : 'no source yet',
        unit: 'text',
        provenance: fromJob,
      },
      ...wanted.map(n => ({
        label: named(n),
        value: n.served ? 'served' : 'not served',
        unit: 'text' as const,
      })),
    ],
    steps: [{ label: 'Picked at 240 V', value: wanted.length, unit: 'circuits' }],
    references: ['Two-pole breakers on multiwire circuits: NEC 210.4'],
    notCovered: ['120/240 V loads that could run in part at 120 V.'],
  }
}
