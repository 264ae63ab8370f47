import { Button } from '@mui/material'
import Link from 'next/link'
import { plural } from '@/core/units/format'
import { Card, Quiet } from '../common/pieces'
import { useWorkspace } from '../workspace/store'
import { ChangeList } from './ChangeList'

/** Beside the panel: what is planned to be done to it, without what is only led to a switch. */
export function PlanHere() {
  const id = useWorkspace(s => s.id)
  const plan = useWorkspace(s => s.evaluation.plan)
  const mine = plan.filter(c => c.origin !== 'hook-up')
  const others = plan.length - mine.length
  return (
    <Card
      title="What is planned here"
      tools={
        <Button size="small" component={Link} href={`/jobs/${id}/plan`}>
          The whole plan
        </Button>
      }
    >
      <ChangeList changes={mine} />
      {others > 0 && <Quiet>{plural(others, 'change')} more follow from the hook-up.</Quiet>}
    </Card>
  )
}
