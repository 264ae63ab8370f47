import type { Fault } from '../outcome'
import type { Origin } from '../working'
import { edited } from './evidence'
import { type Figure, type Load, type Start, startFigure } from './load'

/** What stands in the fields, named as the load names it; a figure that was not given is empty. */
export function typedOf(load: Load | null) {
  const { start } = load ?? {}
  const given = start && startFigure(start)
  return {
    name: load?.name ?? '',
    runningW: { value: load?.runningW.value ?? ('' as Typed), from: load?.runningW.from ?? 'nameplate' },
    powerFactor: { value: (load?.powerFactor.value ?? 1) as Typed },
    dutyFraction: {
      value: (load?.dutyFraction.value ?? 1) as Typed,
      from: load?.dutyFraction.from ?? 'assumed',
    },
    idleW: { value: (load?.idleW.value ?? 0) as Typed },
    nature: load?.nature ?? 'plain',
    motorType: load?.motorType ?? '',
    connection: load?.connection ?? '',
    method: start?.method ?? ('none' as Start['method'] | 'none'),
    start: { value: given?.value ?? ('' as Typed), from: given?.from ?? 'nameplate' },
    byHand: load?.byHand ?? false,
    needsBond: load?.needsBond ?? false,
  }
}
type Typed = number | string
export type TypedLoad = ReturnType<typeof typedOf>

const figureKeys = { inrush: 'inrushA', 'locked-rotor': 'lockedRotorA', multiple: 'multiple' } as const

/** The load that was typed, with what the form does not show of the one that was: evidence, pattern, logs. To be parsed. */
export function loadOf(typed: TypedLoad, was: Load | null, id: string): unknown {
  const kept = (figure: Figure | undefined, { value, from }: { value: Typed; from: Origin }) =>
    figure && typeof value === 'number' ? edited(figure, value, from) : { value, from }
  const { method, motorType, connection, start: given, ...facts } = typed
  const known = was?.start && startFigure(was.start)
  const same = was?.start?.method === method && known?.value === given.value && known.from === given.from
  const start = same
    ? was?.start
    : method !== 'none' && {
        method,
        [figureKeys[method]]: given,
        ...(method === 'locked-rotor' &&
          was?.start?.method === 'locked-rotor' &&
          was.start.softStartFraction && { softStartFraction: was.start.softStartFraction }),
      }
  const { start: _, motorType: __, connection: ___, ...rest } = was ?? {}
  return {
    ...rest,
    ...facts,
    id,
    runningW: kept(was?.runningW, facts.runningW),
    powerFactor: kept(was?.powerFactor, {
      ...facts.powerFactor,
      from: was?.powerFactor.from ?? 'typical value',
    }),
    dutyFraction: kept(was?.dutyFraction, facts.dutyFraction),
    idleW: kept(was?.idleW, { ...facts.idleW, from: was?.idleW.from ?? 'assumed' }),
    ...(motorType && facts.nature !== 'plain' && { motorType }),
    ...(connection && { connection }),
    ...(start && { start }),
  }
}

/** Where a fault of the start stands in the form: its figure, whichever way it was given. */
export const asTyped = (fault: Fault): Fault =>
  /^start\b/.test(fault.path) ? { ...fault, path: 'start.value' } : fault
