import type { Finding } from '@/core/checks/finding'

/** The screens of a job in the order of the work. */
export const views = [
  { key: 'ask', label: 'Ask', help: 'the first call, and what the customer sends' },
  { key: 'panel', label: 'Panel', help: 'what stands in it, what must stay alive' },
  { key: 'trace', label: 'Trace', help: 'breaker by breaker: what died?' },
  { key: 'photos', label: 'Photos', help: 'photographs as evidence' },
  { key: 'loads', label: 'Loads', help: 'what each circuit draws, and how that is known' },
  { key: 'source', label: 'Source', help: 'what delivers, and how it feeds the legs' },
  { key: 'hook-up', label: 'Hook-up', help: 'how it is connected: methods compared, path, positions, runs' },
  { key: 'outage', label: 'Outage', help: 'how long, what is kept in reserve' },
  { key: 'findings', label: 'Findings', help: 'what is wrong or unknown' },
  { key: 'print', label: 'Print', help: 'the sheet for the door' },
  { key: 'one-line', label: 'One-line', help: 'the diagram, drawn from the job' },
  { key: 'calculations', label: 'Calculations', help: 'answers of the bench kept with this job' },
] as const

export type ViewKey = (typeof views)[number]['key']

/** The findings that are mended on a screen. */
export const findingsOf = (view: ViewKey, findings: readonly Finding[]): Finding[] =>
  view === 'findings' ? [...findings] : findings.filter(f => f.target.view === view && !f.accepted)

/** The keys that do something in the workspace. */
export const workspaceKeys: readonly [key: string, what: string][] = [
  ['Arrows, Home, End', 'move over the panel'],
  ['Space', 'pick or drop the breaker'],
  ['M', 'move the breaker'],
  ['Enter', 'open the circuit, or add a breaker to a free space'],
  ['E', 'enter breakers a line each, on the panel'],
  ['Esc', 'close what is open'],
  ['Ctrl Z', 'undo'],
  ['Ctrl Shift Z', 'redo'],
  ['Ctrl K', 'commands'],
  ...views.slice(0, 10).map((v, i): [string, string] => [String((i + 1) % 10), v.label]),
  ['O, C', 'One-line, Calculations'],
  ['?', 'this sheet'],
]
