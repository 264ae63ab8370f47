import { useHotkeys } from 'react-hotkeys-hook'
import { isTyping } from './typing'

/** Where a key is heard. */
export type Where = 'job' | 'panel' | 'bench'

interface Shortcut {
  /** as the listener reads it; without it what has the focus hears the key itself */
  keys?: string
  /** as it is shown */
  shown: string
  what: string
  where: readonly Where[]
  /** heard while one types, too */
  typing?: true
  /** heard over a dialog, too */
  overDialog?: true
}

/** On some keyboards the sign is on the upper half of its key. */
const either = (sign: string) => `${sign}, shift+${sign}`

const job = ['job'] as const
const panel = ['panel'] as const
const bench = ['bench'] as const

/** Every key that does something, told once: what listens, the sheet and the list of commands read it here. */
export const shortcuts = {
  commands: { keys: 'mod+k', shown: 'Ctrl K', what: 'commands', where: job, typing: true, overDialog: true },
  first: { keys: 'f', shown: 'F', what: 'First answer', where: job },
  ask: { keys: either('1'), shown: '1', what: 'Ask', where: job },
  panel: { keys: either('2'), shown: '2', what: 'Panel', where: job },
  trace: { keys: either('3'), shown: '3', what: 'Trace', where: job },
  photos: { keys: either('4'), shown: '4', what: 'Photos', where: job },
  loads: { keys: either('5'), shown: '5', what: 'Loads', where: job },
  source: { keys: either('6'), shown: '6', what: 'Source', where: job },
  'hook-up': { keys: either('7'), shown: '7', what: 'Hook-up', where: job },
  plan: { keys: 'p', shown: 'P', what: 'Plan', where: job },
  outage: { keys: either('8'), shown: '8', what: 'Outage', where: job },
  findings: { keys: either('9'), shown: '9', what: 'Findings', where: job },
  wire: { keys: 'w', shown: 'W', what: 'Wire', where: job },
  parts: { keys: 'b', shown: 'B', what: 'Parts', where: job },
  estimate: { keys: 't', shown: 'T', what: 'Estimate', where: job },
  work: { keys: 'i', shown: 'I', what: 'Work order', where: job },
  tests: { keys: 'v', shown: 'V', what: 'Tests', where: job },
  'hand-over': { keys: 'h', shown: 'H', what: 'Hand over', where: job },
  print: { keys: either('0'), shown: '0', what: 'Print', where: job },
  'one-line': { keys: 'o', shown: 'O', what: 'One-line', where: job },
  history: { keys: 'y', shown: 'Y', what: 'History', where: job },
  calculations: { keys: 'c', shown: 'C', what: 'Calculations', where: job },
  undo: { keys: 'mod+z', shown: 'Ctrl Z', what: 'undo', where: job },
  redo: { keys: 'mod+shift+z, mod+y', shown: 'Ctrl Shift Z', what: 'redo', where: job },
  close: { keys: 'escape', shown: 'Esc', what: 'close what is open', where: job },
  walk: { shown: 'Arrows, Home, End', what: 'move over the panel', where: panel },
  pick: { shown: 'Space', what: 'pick or drop the breaker', where: panel },
  open: { shown: 'Enter', what: 'open the circuit, or add a breaker to a free space', where: panel },
  enter: { keys: 'e', shown: 'E', what: 'enter breakers, a line each', where: panel },
  move: { shown: 'M', what: 'move the breaker', where: panel },
  stay: {
    keys: 'escape',
    shown: 'Esc',
    what: 'leave it where it was',
    where: panel,
    typing: true,
    overDialog: true,
  },
  find: { keys: either('/'), shown: '/', what: 'ask: the field above the questions', where: bench },
  findToo: { keys: 'mod+k', shown: 'Ctrl K', what: 'the same, while typing', where: bench, typing: true },
  step: {
    shown: 'Arrows up, down',
    what: 'walk the questions; step a number; step a size or a choice',
    where: bench,
  },
  found: { shown: 'Enter', what: 'open the first question found', where: bench },
  next: { shown: 'Tab', what: 'to the next field', where: bench },
  sheet: { keys: either('?'), shown: '?', what: 'this sheet', where: ['job', 'bench'] },
} as const satisfies Record<string, Shortcut>
type ShortcutId = keyof typeof shortcuts

/** The keys heard at a place, in the order of the sheet. */
export const shortcutsAt = (place: Where): Shortcut[] =>
  Object.values<Shortcut>(shortcuts).filter(s => s.where.includes(place))

const dialogOpen = () => document.querySelector('[role="dialog"]') !== null

/**
 * Hears keys of the list while the caller is on the page: no letter of a text, and nothing below a dialog unless the list says so.
 * @param ids alike in what they are heard over
 */
export function useShortcuts<Id extends ShortcutId>(ids: readonly Id[], run: (id: Id) => void): void {
  const listed = ids.map((id): [Id, Shortcut] => [id, shortcuts[id]])
  const heardOver = (what: 'typing' | 'overDialog') => listed.every(([, s]) => s[what])
  useHotkeys(
    listed.map(([, s]) => s.keys ?? '').join(', '),
    (_, { hotkey }) => {
      const pressed = listed.find(([, s]) => s.keys?.split(', ').includes(hotkey))
      if (pressed) run(pressed[0])
    },
    {
      useKey: true,
      preventDefault: true,
      enableOnFormTags: true,
      enableOnContentEditable: true,
      ignoreEventWhen: event =>
        (!heardOver('typing') && isTyping(event.target)) || (!heardOver('overDialog') && dialogOpen()),
    },
  )
}

export const useShortcut = (id: ShortcutId, run: () => void) => useShortcuts([id], run)
