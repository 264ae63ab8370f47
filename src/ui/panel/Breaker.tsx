import { Check, Ellipsis, Plus } from 'lucide-react'
import { type KeyboardEvent, memo } from 'react'
import type { CircuitState } from '@/core/assess/evaluate'
import type { Leg } from '@/core/panel/leg'
import { columnOf, rowOf } from '@/core/panel/positions'
import { quantity } from '@/core/units/format'
import type { WorkspaceState } from '../workspace/store'
import styles from './Breaker.module.css'

interface Props {
  id: string
  space: number
  rows: number
  /** the row of the grid is set by the tandem or quad around it */
  inModule: boolean
  position: string
  label: string
  breakerA: number
  tier: number
  traced: 'known' | 'doubtful' | 'nothing' | 'no'
  leg: CircuitState['leg']
  feed: CircuitState['feed']
  picked: boolean
  meanW: number
  hasLoads: boolean
  /** what else is to be said of it: shared neutral, tie, what it feeds */
  notes: string
  /** what is planned for it: by sign, and by word */
  mark: string
  planned: string
  selected: boolean
  moving: boolean
  tabStop: boolean
  act: WorkspaceState['act']
  select: WorkspaceState['select']
  onFocus: (cell: string) => void
}

/** What the circuit sees, in two or three words; nothing where all is plain. */
const feedWords: Record<Props['feed'], { picked: string; idle: string }> = {
  live: { picked: 'picked', idle: '' },
  dead: { picked: 'picked, dead leg', idle: 'dead leg' },
  'no-240': { picked: 'picked, no 240 V', idle: 'no 240 V' },
  bridge: { picked: 'picked, bridges the legs', idle: 'keep off' },
  'no-phase': { picked: 'picked, no 240 V', idle: 'no 240 V' },
  'not-fed': { picked: 'picked, not fed', idle: 'not fed' },
  'no-position': { picked: 'picked, no position', idle: '' },
  'no-source': { picked: 'picked', idle: '' },
}
const tracedWords = {
  known: '',
  doubtful: ' · doubtful',
  nothing: ' · no load found',
  no: ' · not traced',
} as const

/** One breaker of the drawn panel. A tap or the space bar picks it; Enter or the dots open it; M moves it. */
export const Breaker = memo(function Breaker(p: Props) {
  const words = feedWords[p.feed][p.picked ? 'picked' : 'idle']
  const name = p.label || 'Unlabelled'
  const leg = p.leg === 'both' ? '240 V' : p.leg
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key !== 'Enter' || p.moving) return
    event.preventDefault()
    p.select(p.id, true)
  }
  return (
    <div
      className={styles.breaker}
      style={p.inModule ? undefined : { gridRow: `${rowOf(p.space)} / span ${p.rows}` }}
      data-column={columnOf(p.space)}
      data-picked={p.picked}
      data-feed={p.feed}
      data-selected={p.selected}
      data-circuit={p.id}
    >
      <button
        type="button"
        className={styles.pick}
        data-space={p.space}
        data-cell={p.id}
        tabIndex={p.tabStop ? 0 : -1}
        aria-pressed={p.picked}
        aria-label={`${p.position} ${name}, ${p.breakerA} amp, ${leg}${words ? `, ${words}` : ''}${p.planned ? `, planned: ${p.planned}` : ''}`}
        onClick={() => !p.moving && p.act({ op: 'selectCircuit', circuitId: p.id, picked: !p.picked })}
        onKeyDown={onKeyDown}
        onFocus={() => p.onFocus(p.id)}
      >
        <span className={styles.position}>{p.position.replace('·', '·\u200b')}</span>
        <span className={styles.text}>
          <span className={`${styles.label} ${p.label ? '' : styles.blank}`}>{name}</span>
          <span className={styles.facts}>
            {p.mark && (
              <b className={styles.planned} title={`planned: ${p.planned}`}>
                {p.mark}
              </b>
            )}
            {p.picked && <Check size={14} strokeWidth={4} aria-hidden />}
            {words && words !== 'picked' && <b>{words.replace('picked, ', '')} · </b>}
            {p.breakerA} A{p.leg === 'both' ? ' 2-pole' : ''}
            {p.hasLoads && ` · ${quantity(p.meanW, 'W')}`}
            {p.notes}
            {tracedWords[p.traced]}
          </span>
        </span>
      </button>
      <button
        type="button"
        className={styles.more}
        tabIndex={-1}
        aria-label={`Open ${p.position} ${name}`}
        onClick={() => p.select(p.id, true)}
      >
        <Ellipsis size={18} aria-hidden />
      </button>
    </div>
  )
})

interface FreeProps {
  space: number
  /** the number printed beside it */
  name: string
  leg: Leg
  half?: 'a' | 'b'
  unusable: boolean
  tabStop: boolean
  moving: boolean
  onFocus: (cell: string) => void
  onAdd: (space: number, half?: 'a' | 'b') => void
}

export const FreeSpace = memo(function FreeSpace(p: FreeProps) {
  const { space, name, half, unusable } = p
  const cell = `free${space}${half ?? ''}`
  return (
    <button
      type="button"
      className={styles.free}
      style={half ? undefined : { gridRow: rowOf(space) }}
      data-column={columnOf(space)}
      data-space={space}
      data-cell={cell}
      data-unusable={unusable}
      tabIndex={p.tabStop ? 0 : -1}
      aria-label={unusable ? `${name} cannot be used: open` : `${name} free, ${p.leg}: add a breaker`}
      onFocus={() => p.onFocus(cell)}
      onClick={() => !p.moving && p.onAdd(space, half)}
    >
      <span className={styles.position}>{name}</span>
      <span>{unusable ? 'not usable' : 'free'}</span>
      {!unusable && <Plus size={16} aria-hidden />}
    </button>
  )
})
