/** Ways of connecting a source to the loads: what they serve, how the transfer is made, what they do to the neutral. */
export const methods = {
  undecided: {
    name: 'not decided yet',
    short: 'Not decided',
    neutral: 'unknown',
    transfer: 'unknown',
    serves: 'panel',
    how: '',
    strong: '',
    weak: '',
  },
  'cord-and-plug': {
    name: 'plug the appliance in (cord-and-plug conversion)',
    short: 'Plug the appliance in',
    neutral: 'stand-alone',
    transfer: 'unplugging',
    serves: 'appliances',
    most: 1,
    how: 'The appliance gets a plug and a receptacle beside it; in an outage its plug goes into the source.',
    strong: 'cheapest, and no path back into the panel at all',
    weak: 'one appliance; some jurisdictions refuse it for fixed equipment',
    dailyUse: true,
    steps: ['Unplug the appliance', 'Plug it into the source'],
    hours: { least: 0.75, most: 1.5, eachMost: 0.5 },
    parts: { least: 25, most: 70 },
  },
  'single-circuit-switch': {
    name: 'single-circuit transfer switch',
    short: 'Single-circuit switch',
    neutral: 'switched',
    transfer: 'switch',
    serves: 'positions',
    most: 1,
    devices: ['switch', 'inlet'],
    how: 'A switch ahead of one circuit takes it from the panel to the source, hot and, in many, neutral.',
    strong: 'cheap, and it can switch the neutral too',
    weak: 'one circuit',
    dailyUse: true,
    steps: ['Connect the source', 'Turn the switch'],
    hours: { least: 1.5, most: 3, eachMost: 0 },
    parts: { least: 120, most: 220 },
  },
  'multi-circuit-switch': {
    name: 'multi-circuit manual transfer switch',
    short: 'Multi-circuit switch',
    neutral: 'hots-only',
    transfer: 'switch',
    serves: 'positions',
    devices: ['switch', 'secondSwitch', 'inlet'],
    how: 'Each chosen circuit’s hot is led through a position of the switch: up for the panel, down for the source.',
    strong: 'battery and utility side by side, circuit by circuit, every day',
    weak: 'a fixed choice of circuits, a limit on each position and on the whole, many splices',
    dailyUse: true,
    steps: ['Connect the source', 'Turn each position, the largest motor last'],
    hours: { least: 3, most: 4.5, eachMost: 0.5 },
    parts: { least: 90, most: 180 },
  },
  'interlocked-inlet': {
    name: 'interlocked backfeed breaker and inlet',
    short: 'Interlocked inlet',
    neutral: 'hots-only',
    transfer: 'interlock',
    serves: 'panel',
    spaces: 2,
    besideMain: true,
    devices: ['interlock', 'inlet'],
    how: 'An inlet feeds a breaker beside the main; a sliding plate lets only one of the two be on.',
    strong: 'the whole panel to choose from, few parts',
    weak: 'all or nothing at the changeover; people mind the load; nothing tells that the utility is back',
    steps: [
      'Switch every branch breaker off',
      'Main off, slide the interlock, backfed breaker on',
      'Connect and start the source',
      'Branch breakers on, one by one',
    ],
    hours: { least: 3, most: 5, eachMost: 0 },
    parts: { least: 150, most: 280 },
  },
  'sub-panel-interlock': {
    name: 'new sub-panel with its own interlock',
    short: 'Sub-panel with interlock',
    neutral: 'hots-only',
    transfer: 'interlock',
    serves: 'moved circuits',
    spaces: 2,
    devices: ['interlock', 'inlet'],
    how: 'A new panel is fed from the old one through its own interlocked main; chosen circuits move there.',
    strong: 'when the existing panel is full',
    weak: 'feeder, more parts, every moved circuit is a splice',
    steps: [
      'In the sub-panel: feed off, slide the interlock, source breaker on',
      'Connect and start the source',
      'Breakers on, one by one',
    ],
    hours: { least: 6, most: 9, eachMost: 0.75 },
    parts: { least: 350, most: 600 },
  },
  'critical-subpanel': {
    name: 'critical-load sub-panel behind an inverter with its own transfer',
    short: 'Critical-load sub-panel',
    neutral: 'hots-only',
    transfer: 'automatic',
    serves: 'moved circuits',
    spaces: 2,
    automatic: true,
    how: 'Chosen circuits move to a panel that the inverter feeds; it passes the utility through and takes over by itself.',
    strong: 'comes on by itself, clean',
    weak: 'everything on it must be carried at once; wrong picks trip and are moved back',
    dailyUse: true,
    steps: [],
    hours: { least: 8, most: 14, eachMost: 0.75 },
    parts: { least: 400, most: 800 },
    needs: 'an inverter with its own transfer',
  },
  'managed-panel': {
    name: 'managed automatic panel with metering',
    short: 'Managed panel',
    neutral: 'hots-only',
    transfer: 'automatic',
    serves: 'positions',
    automatic: true,
    sheds: true,
    devices: ['managed'],
    how: 'A panel with a switch and a meter for each circuit takes over by itself and lets circuits go by priority.',
    strong: 'automatic, sheds and meters',
    weak: 'price, current transformers to place and orient, an electrician’s hours',
    dailyUse: true,
    steps: [],
    hours: { least: 8, most: 14, eachMost: 0.6 },
    parts: { least: 150, most: 300 },
  },
  'extension-cords': {
    name: 'extension cords to appliances',
    short: 'Extension cords',
    neutral: 'stand-alone',
    transfer: 'unplugging',
    serves: 'appliances',
    how: 'Cords from the source to what has a plug.',
    strong: 'no installation',
    weak: 'trip hazards, nothing hard-wired, never permanent',
    dailyUse: true,
    steps: ['Lay the cords', 'Unplug each appliance and plug it into its cord'],
    hours: { least: 0, most: 0.5, eachMost: 0 },
    parts: { least: 40, most: 160 },
  },
  'backfeed-unprotected': {
    name: 'backfed breaker or inlet with no interlock (as found)',
    short: 'Backfed, no interlock',
    neutral: 'hots-only',
    transfer: 'none',
    serves: 'panel',
    how: 'An inlet feeds a breaker, and nothing keeps the main from being on.',
    strong: '',
    weak: 'feeds the street the day someone forgets the main',
  },
} as const satisfies Record<string, Method>

interface Method {
  name: string
  short: string
  /** what the hook-up does to the neutral: leaves it tied to the house, switches it too, or never meets the house */
  neutral: 'unknown' | 'hots-only' | 'switched' | 'stand-alone'
  transfer: 'unknown' | 'unplugging' | 'switch' | 'interlock' | 'automatic' | 'none'
  /** what it can carry: appliances by their plugs, circuits by positions, what was moved, or the whole panel */
  serves: 'appliances' | 'positions' | 'moved circuits' | 'panel'
  /** how many at most, where that is its nature */
  most?: number
  /** what of the catalogue it is made with */
  devices?: readonly ('switch' | 'secondSwitch' | 'managed' | 'interlock' | 'inlet')[]
  how: string
  strong: string
  weak: string
  /** spaces that its breaker takes in the panel, one above the other */
  spaces?: 1 | 2
  /** at the end of the panel where the interlock acts on the main */
  besideMain?: boolean
  automatic?: boolean
  /** lets circuits go when all of them are too much */
  sheds?: boolean
  /** battery and utility can be used side by side on ordinary days */
  dailyUse?: boolean
  /** the changeover, step by step; empty where it happens by itself */
  steps?: readonly string[]
  /** an installer's hours, and more for each circuit beyond the first: our estimate */
  hours?: { least: number; most: number; eachMost: number }
  /** small parts: boxes, wire, fittings, breakers, $; without the devices of the catalogue: our estimate */
  parts?: { least: number; most: number }
  /** what it cannot be without */
  needs?: string
}
export type MethodFacts = Method

export type MethodId = keyof typeof methods
export const methodIds = Object.keys(methods) as [MethodId, ...MethodId[]]
export const methodOf = (id: MethodId): Method => methods[id]
