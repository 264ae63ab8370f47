import type { Field } from '@/core/field'
import { legAngleDegrees } from '@/core/readings/split-readings'
import { figure } from '@/core/units/format'
import type { Draft } from '../form/draft'
import { FieldNamed } from '../form/FieldInput'
import styles from './Pictures.module.css'

/** The three bars of a panel with the meter across each two; the readings are typed where they are taken. */
export function LegsPicture({ fields, draft }: { fields: readonly Field[]; draft: Draft }) {
  const input = (name: string) => <FieldNamed fields={fields} name={name} />
  return (
    <>
      <div className={styles.legs}>
        <div className={styles.bar} data-bar="L1">
          L1
        </div>
        <div className={styles.bar} data-bar="N">
          N
        </div>
        <div className={styles.bar} data-bar="L2">
          L2
        </div>
        <div className={styles.across}>{input('l1V')}</div>
        <div className={styles.across}>{input('l2V')}</div>
        <div className={styles.over}>{input('l1l2V')}</div>
      </div>
      {input('l1l2AgainV')}
      <Phasors draft={draft} />
    </>
  )
}

const radius = 78

/** The two legs as hands of a clock: opposite for split phase, one on the other when tied. */
function Phasors({ draft }: { draft: Draft }) {
  const { l1V, l2V, l1l2V } = draft
  if (typeof l1V !== 'number' || typeof l2V !== 'number' || typeof l1l2V !== 'number') return null
  const degrees = legAngleDegrees({ l1V, l2V, l1l2V, l1l2AgainV: [] })
  if (degrees === null) return null
  const longest = Math.max(l1V, l2V)
  const turn = (degrees * Math.PI) / 180
  const one = { x: 210 + (radius * l1V) / longest, y: 100 }
  const two = {
    x: 210 + (radius * l2V * Math.cos(turn)) / longest,
    y: 100 - (radius * l2V * Math.sin(turn)) / longest,
  }
  // in step, the one hand would hide the other
  const aside = degrees < 8 ? 14 : 0
  return (
    <figure className={styles.line}>
      <figcaption>How the legs stand to each other</figcaption>
      <svg viewBox="50 0 330 150" role="img" aria-label={`Angle between the legs ${figure(degrees)} degrees`}>
        <circle cx="210" cy="100" r="5" className={styles.neutral} />
        <line x1="210" y1="100" x2={one.x} y2={one.y} className={styles.hand} />
        <line x1="210" y1={100 - aside} x2={two.x} y2={two.y - aside} className={styles.hand} data-second />
        <line x1={one.x} y1={one.y} x2={two.x} y2={two.y - aside} className={styles.between} />
        <text x={one.x + 10} y={one.y + 20} data-start>
          L1 {figure(l1V)} V
        </text>
        <text x={two.x} y={two.y - aside - 10} data-start={degrees < 60 || undefined}>
          L2 {figure(l2V)} V
        </text>
        <text x="210" y="130">
          about {figure(degrees)}° apart, {figure(l1l2V)} V between
        </text>
      </svg>
    </figure>
  )
}
