import { Button } from '@mui/material'
import { outageSchema } from '@/core/ask/outage-asked'
import { quantity } from '@/core/units/format'
import { Row } from '../common/pieces'
import { EditFigure } from '../form/EditField'
import { useWorkspace } from '../workspace/store'
import styles from './AskView.module.css'

const usual = [8, 24, 36, 72, 96] as const

/** The length of the outage is the job's own figure, asked here first. */
export function HowLong() {
  const hours = useWorkspace(s => s.job.outage.hours)
  const act = useWorkspace(s => s.act)
  const set = (hours: number) => act({ op: 'setOutage', facts: { hours } })
  return (
    <div className={styles.question} data-open="false" data-question="hours">
      <p>
        <b>How long do they last, at worst?</b>
      </p>
      <Row sx={{ alignItems: 'flex-start' }}>
        <EditFigure label="Hours" value={hours} unit="h" schema={outageSchema.shape.hours} onCommit={set} />
        {usual.map(h => (
          <Button
            key={h}
            variant={h === hours ? 'contained' : 'outlined'}
            size="small"
            aria-pressed={h === hours}
            sx={{ minWidth: 0 }}
            onClick={() => set(h)}
          >
            {quantity(h, 'h')}
          </Button>
        ))}
      </Row>
    </div>
  )
}
