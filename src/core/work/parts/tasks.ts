import * as z from 'zod'
import { labelled } from '../../field'
import { changeText } from '../../job/change-text'
import type { Job } from '../../job/schema'
import { changeId, type PlannedChange } from '../../plan/change'
import { within } from '../../quantity'
import { together } from '../../units/format'
import { wiringPlan } from '../wiring'
import { panelsTouched } from './sundries'
import type { ViewOfWork } from './where'

/** Tools that a piece of work takes, and what protects who does it. A row for each kind of work. */
interface WorkFacts {
  name: string
  /** minutes for the first, and for each more of one job */
  firstMin: number
  eachMin: number
  people: 1 | 2
  tools: readonly string[]
  /** energised parts stay bare beside it: the service side of a panel, a battery */
  live?: boolean
}

const inPanel = [
  'voltage tester, and a known live source to prove it on before and after',
  'torque screwdriver',
  'lineman’s pliers and strippers',
] as const
const onWall = ['drill with masonry and wood bits', 'level', 'tape measure'] as const

export const kindsOfWork = {
  prepare: {
    name: 'Prepare, protect the floor, lay out parts',
    firstMin: 20,
    eachMin: 0,
    people: 1,
    tools: ['head lamp', 'drop cloth'],
  },
  isolate: {
    name: 'Switch off, lock, prove dead; switch on again',
    firstMin: 15,
    eachMin: 10,
    people: 1,
    tools: [...inPanel.slice(0, 1), 'lockout devices and tags'],
    live: true,
  },
  mount: { name: 'Mount a device', firstMin: 30, eachMin: 30, people: 1, tools: onWall },
  panel: {
    name: 'Put up a panel',
    firstMin: 75,
    eachMin: 75,
    people: 2,
    tools: [...onWall, 'step bit or knockout punch of the right trade size'],
  },
  lead: {
    name: 'Lead a circuit through a position',
    firstMin: 20,
    eachMin: 15,
    people: 1,
    tools: inPanel,
    live: true,
  },
  land: {
    name: 'Lead a circuit over to another panel',
    firstMin: 25,
    eachMin: 20,
    people: 1,
    tools: inPanel,
    live: true,
  },
  breaker: {
    name: 'Fit, move or exchange a breaker',
    firstMin: 12,
    eachMin: 8,
    people: 1,
    tools: inPanel,
    live: true,
  },
  backfeed: {
    name: 'Fit breaker and interlock',
    firstMin: 25,
    eachMin: 25,
    people: 1,
    tools: inPanel,
    live: true,
  },
  outlet: {
    name: 'Work at an outlet or appliance',
    firstMin: 30,
    eachMin: 25,
    people: 1,
    tools: [...inPanel, 'outlet tester'],
  },
  bond: { name: 'Fit or take out a bond', firstMin: 15, eachMin: 15, people: 1, tools: inPanel, live: true },
  raceway: {
    name: 'Lay a raceway, by the foot',
    firstMin: 15,
    eachMin: 3,
    people: 1,
    tools: [
      'hacksaw or cutter',
      'reamer',
      'bender of the right trade size',
      ...onWall,
      'step bit or knockout punch of the right trade size',
    ],
  },
  pull: {
    name: 'Pull and make up a wire',
    firstMin: 6,
    eachMin: 5,
    people: 1,
    tools: ['fish tape', 'pulling lubricant', ...inPanel],
  },
  splice: {
    name: 'Make a splice',
    firstMin: 3,
    eachMin: 2,
    people: 1,
    tools: ['lineman’s pliers and strippers'],
  },
  battery: {
    name: 'Set and join batteries and inverter',
    firstMin: 90,
    eachMin: 30,
    people: 2,
    tools: ['insulated tools for direct current', 'torque wrench', 'direct-current voltmeter'],
    live: true,
  },
  label: {
    name: 'Label and tell the directory anew',
    firstMin: 20,
    eachMin: 2,
    people: 1,
    tools: ['label printer'],
  },
  test: {
    name: 'Test each circuit on each supply',
    firstMin: 30,
    eachMin: 6,
    people: 1,
    tools: ['multimeter', 'clamp meter', 'outlet tester'],
  },
} as const satisfies Record<string, WorkFacts>
export type KindOfWork = keyof typeof kindsOfWork
export const worksKnown = Object.keys(kindsOfWork) as [KindOfWork, ...KindOfWork[]]

/** The firm’s own minutes by kind of work; what is missing is ours. */
export const minutesSchema = z
  .array(
    z.strictObject({
      work: labelled(z.enum(worksKnown), 'Work', 'text', {
        names: Object.fromEntries(worksKnown.map(k => [k, kindsOfWork[k].name])),
      }),
      firstMin: labelled(within(0, 2400, 'minutes'), 'The first, minutes', 'count'),
      eachMin: labelled(within(0, 2400, 'minutes'), 'Each more, minutes', 'count'),
    }),
  )
  .max(worksKnown.length, `must hold at most ${worksKnown.length} kinds of work`)
export type Minutes = z.infer<typeof minutesSchema>

export const usualMinutes: Minutes = worksKnown.map(work => ({
  work,
  firstMin: kindsOfWork[work].firstMin,
  eachMin: kindsOfWork[work].eachMin,
}))

/** A piece of work of a job: how many of it, how long, with what. */
export interface TaskOfJob {
  work: KindOfWork
  name: string
  count: number
  minutes: number
  people: 1 | 2
  tools: readonly string[]
  why: { text: string; at: ViewOfWork }[]
}

/** The work that each kind of planned change is. A row for each. */
const workOf: Record<PlannedChange['kind'], KindOfWork> = {
  move: 'breaker',
  land: 'land',
  exchange: 'breaker',
  add: 'breaker',
  remove: 'breaker',
  tie: 'breaker',
  lock: 'breaker',
  guard: 'outlet',
  cord: 'outlet',
  'soft-start': 'outlet',
  bond: 'bond',
  filler: 'breaker',
  panel: 'panel',
  intercept: 'panel',
  receptacle: 'outlet',
  notice: 'label',
  mount: 'mount',
  backfeed: 'backfeed',
  lead: 'lead',
  'position-breaker': 'breaker',
  run: 'raceway',
}

export interface WorkOfJob {
  tasks: TaskOfJob[]
  /** one pair of hands after the other */
  hours: number
  /** hours of a second pair of hands */
  helperHours: number
  tools: { name: string; for: string[] }[]
  protection: string[]
  /** what is too heavy for one: above 50 lb */
  lifts: { name: string; weightLb: number; people: number }[]
}

const oneLiftsLb = 50
const anySize = 'of the right trade size'

/** The work that a job’s plan and wiring take, with tools, protective equipment and hours by the firm’s minutes. */
export function workOfJob(job: Job, own: Minutes = []): WorkOfJob {
  const counts = new Map<KindOfWork, { count: number; why: TaskOfJob['why'] }>()
  const add = (work: KindOfWork, count: number, text: string, at: ViewOfWork) => {
    if (count <= 0) return
    const was = counts.get(work) ?? { count: 0, why: [] }
    was.count += count
    was.why.push({ text, at })
    counts.set(work, was)
  }
  const open = job.planned.filter(c => !c.built)
  // a run is counted by the foot, in the wiring plan
  for (const change of open)
    if (change.kind !== 'run')
      add(
        workOf[change.kind],
        change.kind === 'land' || change.kind === 'move' ? change.places.length : 1,
        changeText(job, change),
        { view: 'plan', of: changeId(change) },
      )
  const plan = wiringPlan(job)
  for (const r of plan.routes) {
    const bought = plan.conductors.filter(c => c.route === r.id && c.comes === 'bought')
    if (r.raceway) add('raceway', r.lengthFt, r.name, { view: 'wire', of: r.id })
    add('pull', bought.length, r.name, { view: 'wire', of: r.id })
  }
  add('splice', plan.splices.length, 'Splices of the wiring plan', { view: 'wire' })
  const banks = job.source?.units.filter(u => u.bank && !u.owned) ?? []
  for (const { equipment, bank } of banks)
    add('battery', bank ? bank.series * bank.parallel : 0, equipment.name, { view: 'source' })
  if (counts.size) {
    const plan = { view: 'plan' as const }
    add('prepare', 1, 'Once a job', plan)
    add('isolate', Math.max(1, panelsTouched(job).size), 'Each panel that is worked in', plan)
    add('label', open.filter(c => c.kind !== 'notice').length, 'What is new or moved', plan)
    add('test', job.panels.flatMap(p => p.circuits).filter(c => c.picked).length, 'Picked circuits', plan)
  }
  const trade = [...new Set(plan.routes.flatMap(r => (r.raceway ? [r.raceway.tradeSize] : [])))].sort()
  const sizes = trade.length ? `for trade size ${together(trade)}` : anySize
  const minutesOf = (work: KindOfWork) => own.find(o => o.work === work) ?? kindsOfWork[work]
  const tasks = worksKnown.flatMap((work): TaskOfJob[] => {
    const asked = counts.get(work)
    if (!asked) return []
    const { firstMin, eachMin } = minutesOf(work)
    const { name, people } = kindsOfWork[work]
    const tools = kindsOfWork[work].tools.map(t => t.replace(anySize, sizes))
    const minutes = firstMin + eachMin * Math.max(0, asked.count - 1)
    return [{ work, name, count: asked.count, minutes, people, tools, why: asked.why }]
  })
  const tools = new Map<string, string[]>()
  for (const t of tasks) for (const tool of t.tools) tools.set(tool, [...(tools.get(tool) ?? []), t.name])
  const live = tasks.some(t => 'live' in kindsOfWork[t.work])
  return {
    tasks,
    hours: tasks.reduce((sum, t) => sum + t.minutes, 0) / 60,
    helperHours: tasks.reduce((sum, t) => sum + (t.people - 1) * t.minutes, 0) / 60,
    tools: [...tools].map(([name, uses]) => ({ name, for: uses })),
    protection: tasks.length
      ? [
          'safety glasses',
          'work gloves',
          'hearing protection where it is drilled',
          ...(live
            ? [
                'arc-rated clothing and face shield, and rated gloves with leather, where parts stay energised (NFPA 70E): what is ahead of the main stays live',
              ]
            : []),
        ]
      : [],
    lifts: liftsOf(job),
  }
}

function liftsOf(job: Job): WorkOfJob['lifts'] {
  const heavy = (job.source?.units ?? []).flatMap(({ equipment, bank, owned }) => [
    ...(owned ? [] : [equipment]),
    ...(bank ? [bank.equipment] : []),
  ])
  return heavy.flatMap(({ name, weightLb }) =>
    weightLb !== undefined && weightLb > oneLiftsLb
      ? [{ name, weightLb, people: Math.ceil(weightLb / oneLiftsLb) }]
      : [],
  )
}
