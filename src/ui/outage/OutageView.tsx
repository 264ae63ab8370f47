'use client'
import Button from '@mui/material/Button'
import { outageSchema } from '@/core/job/schema'
import { quantity } from '@/core/units/format'
import { EditField, readNumber } from '../common/EditField'
import { FindingsHere } from '../findings/FindingsHere'
import { useWorkspace } from '../workspace/store'
import styles from './OutageView.module.css'
import { StoreChart } from './StoreChart'

const usualHours = [8, 24, 36, 72, 96]
const { hours, reserveFraction, startFraction, deratingFraction } = outageSchema.shape
const percent = (fraction: number) => String(Number((fraction * 100).toPrecision(12)))

/** A fraction's problem in per cent, as it is typed. */
const readPercent = (schema: typeof reserveFraction, low: number, high: number) => (text: string) => {
  const got = readNumber(schema, 0.01)(text)
  return 'problem' in got && got.problem.includes('fraction')
    ? { problem: `must be from ${low} to ${high} %` }
    : got
}

/** How long it has to last, what is kept back, and the store falling meanwhile. */
export function OutageView() {
  const outage = useWorkspace(s => s.job.outage)
  const act = useWorkspace(s => s.act)
  const line = useWorkspace(s => s.evaluation.balance.find(l => l.id === 'hours'))
  const set = (facts: Partial<typeof outage>) => act({ op: 'setOutage', facts })
  return (
    <div className={styles.view}>
      <h1>Outage</h1>
      <section className={styles.fields} aria-label="What is asked">
        <div>
          <EditField
            label="Hours to last"
            value={String(outage.hours)}
            unit="h"
            inputMode="decimal"
            read={readNumber(hours)}
            onCommit={value => set({ hours: value })}
          />
          <div className={styles.usual}>
            {usualHours.map(h => (
              <Button
                key={h}
                size="small"
                variant={outage.hours === h ? 'contained' : 'outlined'}
                aria-pressed={outage.hours === h}
                onClick={() => set({ hours: h })}
              >
                {quantity(h, 'h')}
              </Button>
            ))}
          </div>
        </div>
        <EditField
          label="Kept in reserve"
          value={percent(outage.reserveFraction)}
          unit="%"
          inputMode="decimal"
          help="Of the store, for the outage that lasts longer"
          read={readPercent(reserveFraction, 0, 90)}
          onCommit={value => set({ reserveFraction: value })}
        />
        <EditField
          label="Charge when it begins"
          value={percent(outage.startFraction)}
          unit="%"
          inputMode="decimal"
          read={readPercent(startFraction, 5, 100)}
          onCommit={value => set({ startFraction: value })}
        />
        <EditField
          label="Capacity left after cold and age"
          value={percent(outage.deratingFraction)}
          unit="%"
          inputMode="decimal"
          help="Below freezing, and after years, less"
          read={readPercent(deratingFraction, 30, 100)}
          onCommit={value => set({ deratingFraction: value })}
        />
      </section>
      {line && <p className={styles.sentence}>{line.sentence}</p>}
      <StoreChart />
      <FindingsHere view="outage" />
    </div>
  )
}
