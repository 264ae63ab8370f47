import type { Field } from '@/core/field'
import { groundOnLine } from '@/core/readings/outlet-readings'
import { figure } from '@/core/units/format'
import type { Draft } from '../form/draft'
import { FieldNamed } from '../form/FieldInput'
import styles from './Pictures.module.css'

/** The outlet as one looks at it, with the three places a meter goes; the readings are typed where they are taken. */
export function OutletPicture({ fields, draft }: { fields: readonly Field[]; draft: Draft }) {
  const input = (name: string) => <FieldNamed fields={fields} name={name} />
  return (
    <>
      <div className={styles.outlet}>
        <div className={styles.top}>{input('hotNeutralV')}</div>
        <svg
          viewBox="0 0 420 216"
          role="img"
          aria-label="Outlet: neutral slot left, hot slot right, ground below"
        >
          <rect x="115" y="18" width="190" height="180" rx="18" className={styles.plate} />
          <rect x="160" y="56" width="11" height="46" rx="2" className={styles.slot} />
          <rect x="250" y="60" width="11" height="38" rx="2" className={styles.slot} />
          <path d="M196 142h28v14a14 14 0 0 1-28 0z" className={styles.slot} />
          <text x="165" y="122">
            neutral
          </text>
          <text x="256" y="118">
            hot
          </text>
          <text x="210" y="134">
            ground
          </text>
          <path d="M165 72 C 168 20, 190 6, 196 0 M255 74 C 252 20, 230 6, 224 0" className={styles.lead} />
          <path
            d="M165 88 C 60 96, 96 176, 146 216 M204 156 C 198 184, 184 196, 178 216"
            className={styles.lead}
          />
          <path
            d="M255 88 C 360 96, 372 176, 374 216 M216 156 C 226 200, 330 184, 342 216"
            className={styles.lead}
          />
          {[
            [165, 72],
            [165, 88],
            [255, 74],
            [255, 88],
            [204, 156],
            [216, 156],
          ].map(([x, y]) => (
            <circle key={`${x} ${y}`} cx={x} cy={y} r="4.5" className={styles.tip} />
          ))}
        </svg>
        <div className={styles.pair}>
          {input('neutralGroundV')}
          {input('hotGroundV')}
        </div>
        <div className={styles.where}>{input('at')}</div>
      </div>
      <VoltageLine draft={draft} />
    </>
  )
}

/** Where the ground stands between neutral and hot: the reason for odd volts, seen. */
function VoltageLine({ draft }: { draft: Draft }) {
  const { hotNeutralV: n, neutralGroundV: g, hotGroundV: h } = draft
  if (typeof n !== 'number' || typeof g !== 'number' || typeof h !== 'number' || n <= 0) return null
  const groundV = groundOnLine({ hotNeutralV: n, neutralGroundV: g, hotGroundV: h })
  const low = Math.min(0, groundV)
  const high = Math.max(n, groundV)
  const x = (v: number) => 40 + (340 * (v - low)) / (high - low || 1)
  return (
    <figure className={styles.line}>
      <figcaption>Where the ground stands</figcaption>
      <svg viewBox="0 0 420 92" role="img" aria-label={`Ground ${figure(Math.abs(groundV))} V from neutral`}>
        <line x1={x(low)} x2={x(high)} y1="46" y2="46" className={styles.axis} />
        <circle cx={x(0)} cy="46" r="8" className={styles.neutral} />
        <rect x={x(n) - 8} y="38" width="16" height="16" className={styles.hot} />
        <path d={`M${x(groundV)} 34 l10 22 h-20z`} className={styles.ground} />
        <text x={x(0)} y="24">
          neutral, 0 V
        </text>
        <text x={x(n)} y="24">
          hot, {figure(n)} V
        </text>
        <text x={x(groundV)} y="78">
          ground, {figure(g)} V off neutral, {figure(h)} V off hot
        </text>
      </svg>
    </figure>
  )
}
