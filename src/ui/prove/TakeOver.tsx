import { Alert, Button } from '@mui/material'
import { useMemo } from 'react'
import { evaluate } from '@/core/assess/evaluate'
import type { Finding } from '@/core/checks/finding'
import { applyOperation } from '@/core/job/operations'
import { Column, Quiet, Terms } from '../common/pieces'
import { useWorkspace } from '../workspace/store'

/** What a reading says against the design, and the one press that takes it over; of one test, or of all. */
export function TakeOver({ testId }: { testId?: string }) {
  const findings = useWorkspace(s => s.evaluation.findings)
  const mine = findings.filter(
    f =>
      f.id.startsWith('measured.') &&
      f.target.view === 'tests' &&
      (testId === undefined || f.target.field === testId),
  )
  if (!mine.length) return null
  return (
    <Column>
      {mine.map(f => (
        <Differs key={f.key} finding={f} />
      ))}
    </Column>
  )
}

/** What the balance says of the hours, before and after. */
function Differs({ finding }: { finding: Finding }) {
  const job = useWorkspace(s => s.job)
  const before = useWorkspace(s => s.evaluation.balance.find(l => l.id === 'hours')?.sentence)
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const [fix] = finding.fixes
  const after = useMemo(() => {
    if (!fix) return undefined
    const taken = applyOperation(job, { op: 'applyFix', label: fix.label, operations: fix.operations })
    return taken.ok ? evaluate(taken.value).balance.find(l => l.id === 'hours')?.sentence : undefined
  }, [job, fix])
  return (
    <Alert severity="info" icon={false} sx={{ '& .MuiAlert-message': { width: 1 } }}>
      <b>It differs from the design.</b> {finding.sentence} {finding.remedy}
      {after !== undefined && after !== before ? (
        <Terms
          width={64}
          rows={[
            ['Before', before ?? ''],
            ['After', after],
          ]}
        />
      ) : (
        <Quiet>It changes no hours of an outage.</Quiet>
      )}
      {fix && (
        <Button
          variant="contained"
          sx={{ mt: 1 }}
          onClick={() => {
            const [fault] = act({ op: 'applyFix', label: fix.label, operations: fix.operations })
            say(fault ? `${fix.label}: ${fault.message}` : `${fix.label}: done. Undo takes it back.`)
          }}
        >
          {fix.label}
        </Button>
      )}
    </Alert>
  )
}
