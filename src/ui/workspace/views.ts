import type { Finding } from '@/core/checks/finding'

/** The screens of a job in the order of the work, and the part of the work that each belongs to. */
export const views = [
  {
    key: 'first',
    group: 'First call',
    label: 'First answer',
    help: 'what must live, how big, how much: before any panel is known',
  },
  { key: 'ask', group: 'First call', label: 'Ask', help: 'the first call, and what the customer sends' },
  { key: 'panel', group: 'Survey', label: 'Panel', help: 'what stands in it, what must stay alive' },
  { key: 'trace', group: 'Survey', label: 'Trace', help: 'breaker by breaker: what died?' },
  { key: 'photos', group: 'Survey', label: 'Photos', help: 'photographs as evidence' },
  {
    key: 'loads',
    group: 'Survey',
    label: 'Loads',
    help: 'what each circuit draws, and how that is known',
  },
  { key: 'source', group: 'Design', label: 'Source', help: 'what delivers, and how it feeds the legs' },
  {
    key: 'hook-up',
    group: 'Design',
    label: 'Hook-up',
    help: 'how it is connected: methods compared, path, positions, runs',
  },
  { key: 'plan', group: 'Design', label: 'Plan', help: 'what we are going to do to the house' },
  { key: 'outage', group: 'Prove', label: 'Outage', help: 'how long, what is kept in reserve' },
  { key: 'findings', group: 'Prove', label: 'Findings', help: 'what is wrong or unknown' },
  {
    key: 'wire',
    group: 'Wire and buy',
    label: 'Wire',
    help: 'which conductor goes where, through what',
  },
  { key: 'parts', group: 'Wire and buy', label: 'Parts', help: 'what to order, tools, hours' },
  {
    key: 'estimate',
    group: 'Wire and buy',
    label: 'Estimate',
    help: 'options with their price, the customer’s link, what was accepted',
  },
  {
    key: 'work',
    group: 'Install',
    label: 'Work order',
    help: 'step by step: what is off, what stays live, hold points, who is where',
  },
  {
    key: 'tests',
    group: 'Commission',
    label: 'Tests',
    help: 'what is proven, by whom, with what; circuits by supply; capacity; inspection',
  },
  {
    key: 'hand-over',
    group: 'Hand over',
    label: 'Hand over',
    help: 'the card for the door, the page of the house, what comes back from it',
  },
  { key: 'print', group: 'On paper', label: 'Print', help: 'the sheet for the door' },
  { key: 'one-line', group: 'On paper', label: 'One-line', help: 'the diagram, drawn from the job' },
  {
    key: 'calculations',
    group: 'On paper',
    label: 'Calculations',
    help: 'answers of the bench kept with this job',
  },
  {
    key: 'history',
    group: 'Record',
    label: 'History',
    help: 'all that was done to this job; look at a revision, or go back to it',
  },
] as const

/** The parts of the work, in order, each with its screens. */
export const groups = [...new Set(views.map(v => v.group))].map(name => ({
  name,
  views: views.filter(v => v.group === name),
}))

export type ViewKey = (typeof views)[number]['key']

/** The findings that are mended on a screen. */
export const findingsOf = (view: ViewKey, findings: readonly Finding[]): Finding[] =>
  view === 'findings' ? [...findings] : findings.filter(f => f.target.view === view && !f.accepted)
