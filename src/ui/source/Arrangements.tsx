'use client'
import { useMemo } from 'react'
import type { Equipment } from '@/core/equipment'
import { arrangementNames, arrangementSees } from '@/core/source/arrangement'
import type { Source } from '@/core/source/design'
import { arrangementWays } from '@/core/source/ways'
import { together } from '@/core/units/format'
import { Choice } from '../common/Choice'
import { useWorkspace } from '../workspace/store'
import styles from './SourceView.module.css'

/** Every arrangement, what the panel would see of it, and what it brings along or why it cannot be. */
export function Arrangements({ source, catalogue }: { source: Source; catalogue: Equipment[] }) {
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const ways = useMemo(() => arrangementWays(source, catalogue), [source, catalogue])
  const oneLeg = source.arrangement === 'one-leg'
  const direct = source.arrangement === 'autotransformer'
  return (
    <fieldset className={styles.group} id="arrangement">
      <legend>Arrangement</legend>
      {ways.map(({ arrangement, operation, brings, hinders }) => (
        <label key={arrangement} className={styles.arrangement} data-off={!operation}>
          <input
            type="radio"
            name="arrangement"
            disabled={!operation}
            checked={source.arrangement === arrangement}
            onChange={() => {
              const [fault] = operation ? act(operation) : []
              if (fault) say(fault.message)
            }}
          />
          <span>
            <b>{arrangementNames[arrangement]}</b>
            <span>
              {hinders ? `Cannot be: ${hinders}.` : arrangementSees[arrangement]}
              {!hinders &&
                brings.length > 0 &&
                source.arrangement !== arrangement &&
                ` With it: ${together(brings)}.`}
            </span>
          </span>
        </label>
      ))}
      {(oneLeg || direct) && (
        <div className={styles.leg}>
          <Choice
            label={oneLeg ? 'Live leg' : 'Leg that the unit feeds directly'}
            value={source.liveLeg}
            options={[
              { value: 'L1' as const, label: 'L1' },
              { value: 'L2' as const, label: 'L2' },
            ]}
            onChange={liveLeg => act({ op: 'setArrangement', arrangement: source.arrangement, liveLeg })}
          />
        </div>
      )}
    </fieldset>
  )
}
