import { Slider } from '@mui/material'
import { panelAt } from '@/core/outage/panel-at'
import type { Plan } from '@/core/outage/plan'
import type { CourseTrace } from '@/core/outage/trace'
import { figure, hourText, quantity } from '@/core/units/format'
import { Card } from '../common/pieces'
import styles from './Outage.module.css'

interface Props {
  plan: Plan
  trace: CourseTrace
  hour: number
  onHour: (hour: number) => void
}

/** The panel as it is at the hour looked at: what is live, what draws how much. */
export function PanelThen({ plan, trace, hour, onHour }: Props) {
  const states = panelAt(plan, trace, hour)
  const most = Math.max(1, ...states.map(s => s.W))
  const clock = hourText((Math.round((((trace.beginsH + hour) % 24) + 24) * 60) / 60) % 24)
  const sum = states.reduce((all, s) => all + s.W, 0)
  return (
    <Card
      aria-label="The panel then"
      title={`Hour ${figure(hour)}${plan.beginsH === null && trace.draw < 0 ? '' : `, ${clock}`}`}
      tools={`${quantity(sum, 'W')} drawn${trace.draw < 0 ? ' on average' : ''}`}
    >
      <Slider
        aria-label="Hour of the outage"
        value={hour}
        min={0}
        max={plan.hours}
        step={plan.hours > 48 ? 0.25 : 1 / 12}
        getAriaValueText={h => `${figure(h)} h`}
        onChange={(_, next) => onHour(next as number)}
      />
      <ul className={styles.circuits}>
        {states.map(s => (
          <li key={s.id} data-live={s.live ? 'lit' : 'dark'} data-tier={s.tier}>
            <span>{s.name}</span>
            <b>{s.live ? quantity(s.W, 'W') : 'dark'}</b>
            <span className={styles.bar} aria-hidden="true">
              <span style={{ width: `${(100 * s.W) / most}%` }} />
            </span>
            {s.runs.length > 0 && <span className={styles.runs}>{s.runs.join(', ')}</span>}
          </li>
        ))}
      </ul>
    </Card>
  )
}
