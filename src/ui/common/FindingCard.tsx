import { Alert, Button, Paper } from '@mui/material'
import dynamic from 'next/dynamic'
import Link from 'next/link'
import { useState } from 'react'
import type { Finding } from '@/core/checks/finding'
import { useWorkspace } from '../workspace/store'
import { Quiet, Row } from './pieces'
import { SeverityTag } from './SeverityTag'
import { today } from './today'

const AcceptDialog = dynamic(() => import('./AcceptDialog').then(m => m.AcceptDialog))

/** One finding: what is wrong, why, what to do, the article, the way to the place, and the fixes the tool can make. */
export function FindingCard({ finding, here = false }: { finding: Finding; here?: boolean }) {
  const act = useWorkspace(s => s.act)
  const person = useWorkspace(s => s.person)
  const say = useWorkspace(s => s.say)
  const select = useWorkspace(s => s.select)
  const id = useWorkspace(s => s.id)
  const showWorking = useWorkspace(s => s.showWorking)
  const showPanel = useWorkspace(s => s.showPanel)
  const { target, working, accepted } = finding
  const [accepting, setAccepting] = useState(false)
  const panelId = target.view === 'panel' ? target.panelId : undefined
  const [circuitId] = target.view === 'panel' ? target.circuitIds : []
  const field = target.view !== 'panel' && target.field ? `#${target.field}` : ''
  return (
    <Paper
      component="article"
      variant="outlined"
      data-severity={finding.severity}
      data-finding={finding.id}
      sx={{
        p: 1.5,
        borderLeft: 5,
        borderLeftColor: `severity.${finding.severity}`,
        '& > * + *': { mt: 0.75 },
        overflowWrap: 'anywhere',
      }}
    >
      <h3>
        <SeverityTag severity={finding.severity} /> {finding.sentence}
      </h3>
      <p>{finding.why}</p>
      <p>
        <b>To do: </b>
        {finding.remedy}
      </p>
      {finding.fixes.map(
        fix =>
          fix.steps && (
            <ol key={fix.label} aria-label={fix.label}>
              {fix.steps.map(step => (
                <li key={step}>{step}</li>
              ))}
            </ol>
          ),
      )}
      <Quiet>
        {finding.article && `${finding.article} · `}
        <Link href={`/checks#${finding.id}`} style={{ color: 'inherit' }}>
          {finding.id}
        </Link>
      </Quiet>
      {accepted && (
        <Alert>
          <b>Accepted</b> by {accepted.by} on {accepted.on}: {accepted.reason}
        </Alert>
      )}
      <Row>
        {finding.fixes.map(fix => (
          <Button
            key={fix.label}
            size="small"
            variant="outlined"
            onClick={() => {
              const [fault] = act({
                op: 'applyFix',
                label: fix.label,
                operations: fix.operations,
                planned: { settles: finding.key, by: person, on: today() },
              })
              say(fault ? `${fix.label}: ${fault.message}` : `${fix.label}: done. Undo takes it back.`)
            }}
          >
            {fix.label}
          </Button>
        ))}
        {working && (
          <Button size="small" aria-haspopup="dialog" onClick={() => showWorking(working)}>
            Show the working
          </Button>
        )}
        {finding.severity !== 'stop' &&
          (accepted ? (
            <Button size="small" onClick={() => act({ op: 'withdrawAcceptance', key: finding.key })}>
              Take the acceptance back
            </Button>
          ) : (
            <Button size="small" aria-haspopup="dialog" onClick={() => setAccepting(true)}>
              Accept with a reason
            </Button>
          ))}
        {!here && (
          <Button
            size="small"
            component={Link}
            href={`/jobs/${id}/${target.view}${field}`}
            onClick={() => {
              if (circuitId) select(circuitId)
              else if (panelId) showPanel(panelId)
            }}
          >
            Go there
          </Button>
        )}
      </Row>
      {accepting && <AcceptDialog finding={finding} onClose={() => setAccepting(false)} />}
    </Paper>
  )
}
