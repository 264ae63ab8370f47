import type { CircuitState } from '@/core/assess/evaluate'
import { circuitsOf } from '@/core/job/panels'
import { quantity } from '@/core/units/format'
import { Card } from '../common/pieces'
import { useWorkspace } from '../workspace/store'
import styles from './LegsBoard.module.css'

const seen: Record<CircuitState['feed'], string> = {
  live: 'live',
  dead: 'dead',
  'no-240': 'no 240 V',
  bridge: 'bridges the legs',
  'no-phase': 'no fixed volts',
  'not-fed': 'not reached',
  'no-position': 'no position',
  'no-source': 'no source',
}

/** The two legs as they stand now, with the picked circuits on them; what the neutral carries between. */
export function LegsBoard() {
  const job = useWorkspace(s => s.job)
  const { circuits, buses, legs, grounding } = useWorkspace(s => s.evaluation)
  const all = circuitsOf(job)
  const picked = circuits.filter(c => all.find(a => a.id === c.id)?.picked)
  const label = (id: string) => all.find(a => a.id === id)?.label || 'unlabelled'
  const leg = (which: 'L1' | 'L2') => (
    <section
      className={styles.leg}
      data-lit={buses[which] === 'live'}
      aria-label={`${which}, ${buses[which]}`}
    >
      <h3>
        {which} <span>{buses[which]}</span>
        {legs && <span>{quantity(legs[`${which}A`], 'A')}</span>}
      </h3>
      <ul>
        {picked
          .filter(c => c.leg === which)
          .map(c => (
            <Chip key={c.id} circuit={c} label={label(c.id)} />
          ))}
      </ul>
    </section>
  )
  const both = picked.filter(c => c.leg === 'both')
  return (
    <Card title="What the panel sees">
      {leg('L1')}
      <div className={styles.neutral}>
        <span>N</span>
        <span>
          {legs ? `neutral carries up to ${quantity(legs.neutralA, 'A')}` : 'neutral: nothing is fed'}
        </span>
      </div>
      {leg('L2')}
      {both.length > 0 && (
        <section className={styles.between} aria-label="Between the legs">
          <h3>Between the legs, 240 V</h3>
          <ul>
            {both.map(c => (
              <Chip key={c.id} circuit={c} label={label(c.id)} />
            ))}
          </ul>
        </section>
      )}
      <p>{grounding.text}</p>
    </Card>
  )
}

function Chip({ circuit, label }: { circuit: CircuitState; label: string }) {
  return (
    <li data-feed={circuit.feed === 'live' ? 'live' : circuit.feed === 'bridge' ? 'bridge' : 'dead'}>
      <b>{circuit.position}</b> {label}
      {circuit.feed !== 'live' && <span> · {seen[circuit.feed]}</span>}
    </li>
  )
}
