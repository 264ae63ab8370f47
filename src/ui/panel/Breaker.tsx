'use client'
import { Check, Ellipsis, Plus } from 'lucide-react'
import { type KeyboardEvent, memo } from 'react'
import type { CircuitState } from '@/core/job/evaluate'
import { columnOf, legOf, rowOf } from '@/core/panel/positions'
import { quantity } from '@/core/units/format'
import type { WorkspaceState } from '../workspace/store'
import styles from './Breaker.module.css'

interface Props {
  id: string
  space: number
  rows: number
  position: string
  label: string
  breakerA: number
  tier: number
  traced: boolean
  leg: CircuitState['leg']
  feed: CircuitState['feed']
  picked: boolean
  meanW: number
  hasLoads: boolean
  neutralWith: number | null
  selected: boolean
  tabIndex: number
  act: WorkspaceState['act']
  select: WorkspaceState['select']
  onFocus: (space: number) => void
}

/** What the circuit sees, in two or three words; nothing where all is plain. */
const feedWords: Record<Props['feed'], { picked: string; idle: string }> = {
  live: { picked: 'picked', idle: '' },
  dead: { picked: 'picked, dead leg', idle: 'dead leg' },
  'no-240': { picked: 'picked, no 240 V', idle: 'no 240 V' },
  bridge: { picked: 'picked, bridges the legs', idle: 'keep off' },
  'no-source': { picked: 'picked', idle: '' },
}

/** One breaker of the drawn panel. A tap or the space bar picks it; Enter or the dots open it. */
export const Breaker = memo(function Breaker(p: Props) {
  const words = feedWords[p.feed][p.picked ? 'picked' : 'idle']
  const name = p.label || 'Unlabelled'
  const leg = p.leg === 'both' ? '240 V' : p.leg
  const pick = () => p.act({ op: 'selectCircuit', circuitId: p.id, picked: !p.picked })
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key !== 'Enter') return
    event.preventDefault()
    p.select(p.id, true)
  }
  return (
    <div
      className={styles.breaker}
      style={{ gridRow: `${rowOf(p.space)} / span ${p.rows}` }}
      data-column={columnOf(p.space)}
      data-picked={p.picked}
      data-feed={p.feed}
      data-selected={p.selected}
    >
      <button
        type="button"
        className={styles.pick}
        data-space={p.space}
        tabIndex={p.tabIndex}
        aria-pressed={p.picked}
        aria-label={`${p.position} ${name}, ${p.breakerA} amp, ${leg}${words ? `, ${words}` : ''}`}
        onClick={pick}
        onKeyDown={onKeyDown}
        onFocus={() => p.onFocus(p.space)}
      >
        <span className={styles.position}>{p.position.replace('·', '·\u200b')}</span>
        <span className={styles.text}>
          <span className={`${styles.label} ${p.label ? '' : styles.blank}`}>{name}</span>
          <span className={styles.facts}>
            {p.picked && <Check size={14} strokeWidth={4} aria-hidden />}
            {words && words !== 'picked' && <b>{words.replace('picked, ', '')} · </b>}
            {p.breakerA} A{p.rows === 2 ? ' 2-pole' : ''}
            {p.hasLoads && ` · ${quantity(p.meanW, 'W')}`}
            {p.neutralWith !== null && ` · N with ${p.neutralWith}`}
            {!p.traced && ' · not traced'}
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
  tabIndex: number
  onFocus: (space: number) => void
  onAdd: (space: number) => void
}

export const FreeSpace = memo(function FreeSpace({ space, tabIndex, onFocus, onAdd }: FreeProps) {
  return (
    <button
      type="button"
      className={styles.free}
      style={{ gridRow: rowOf(space) }}
      data-column={columnOf(space)}
      data-space={space}
      tabIndex={tabIndex}
      aria-label={`${space} free, ${legOf(space)}: add a breaker`}
      onFocus={() => onFocus(space)}
      onClick={() => onAdd(space)}
    >
      <span className={styles.position}>{space}</span>
      <span>free</span>
      <Plus size={16} aria-hidden />
    </button>
  )
})
