import { Box, ButtonBase, List } from '@mui/material'
import dynamic from 'next/dynamic'
import Link from 'next/link'
import type { BalanceLine } from '@/core/assess/balance'
import { quantity } from '@/core/units/format'
import { Quiet } from '../common/pieces'
import { SeverityTag } from '../common/SeverityTag'
import styles from './Balance.module.css'
import { useWorkspace } from './store'

const Beginning = dynamic(() => import('./Beginning').then(m => m.Beginning))

/** What the job needs against what the design has, always in sight. Every line opens its working. */
export function Balance() {
  const lines = useWorkspace(s => s.evaluation.balance)
  const headline = useWorkspace(s => s.evaluation.headline)
  const id = useWorkspace(s => s.id)
  const anyPicked = useWorkspace(s => s.job.panels.some(p => p.circuits.some(c => c.picked)))
  const begun = useWorkspace(s => s.job.source !== undefined) || anyPicked
  return (
    <section aria-label="Balance">
      <Box sx={{ px: 1.75, pt: 1.25, pb: 1.5 }}>
        <h2>Balance</h2>
        {headline.worst ? (
          <Link href={`/jobs/${id}/findings`} className={styles.worst}>
            <SeverityTag
              severity={headline.worst.severity}
              count={headline.counts[headline.worst.severity]}
            />{' '}
            {headline.worst.sentence}
          </Link>
        ) : (
          <p>{anyPicked ? 'The checks find nothing on this design.' : 'Nothing to weigh yet.'}</p>
        )}
      </Box>
      {begun ? (
        <List disablePadding>
          {lines.map(line => (
            <Line key={line.id} line={line} />
          ))}
        </List>
      ) : (
        <Beginning />
      )}
    </section>
  )
}

function Line({ line }: { line: BalanceLine }) {
  const showWorking = useWorkspace(s => s.showWorking)
  const body = (
    <>
      <span className={styles.top}>
        <b style={{ flex: 1 }}>{line.label}</b>
        <span>
          <VerdictTag verdict={line.verdict} />
          {marginText(line)}
        </span>
      </span>
      <span className={styles.top}>
        <span>
          needs <b>{amount(line.need, line)}</b>
        </span>
        <span>
          has <b>{amount(line.have, line)}</b>
        </span>
      </span>
      <Gauge line={line} />
      {saidAbove(line) ? (
        line.limit && <Quiet component="span">{line.limit}</Quiet>
      ) : (
        <Quiet component="span">{line.sentence}</Quiet>
      )}
    </>
  )
  return (
    <li data-line={line.id} data-verdict={line.verdict}>
      <ButtonBase className={styles.line} onClick={() => showWorking(line.working)} aria-haspopup="dialog">
        {body}
        <span className={styles.open}>Show the working</span>
      </ButtonBase>
    </li>
  )
}

/** Where figures and verdict already say all that the sentence would. */
const saidAbove = ({ verdict, unit }: BalanceLine) =>
  verdict === 'enough' || ((unit === 'h' || unit === 'Wh') && (verdict === 'short' || verdict === 'tight'))

const amount = (value: number | null, { unit }: BalanceLine) => (value === null ? '–' : quantity(value, unit))

const marginText = (line: BalanceLine) =>
  line.margin === null || line.verdict === 'none needed'
    ? ''
    : line.margin < 0
      ? ` by ${amount(-line.margin, line)}`
      : line.unit === 'circuits'
        ? ''
        : `, ${amount(line.margin, line)} to spare`

export function VerdictTag({ verdict }: { verdict: BalanceLine['verdict'] }) {
  return <span className={`${styles.verdict} ${styles[verdict.replace(' ', '')]}`}>{verdict}</span>
}

/** A cross-section: the water that is there, and the crest it has to reach. */
function Gauge({ line: { need, have, verdict } }: { line: BalanceLine }) {
  if (need === null || have === null || verdict === 'none needed') return null
  const full = Math.max(need, have) * 1.04
  return (
    <span className={styles.gauge} aria-hidden="true">
      <span className={styles.water} style={{ width: `${(100 * have) / full}%` }} />
      <span className={styles.crest} style={{ left: `${(100 * need) / full}%` }} />
    </span>
  )
}
