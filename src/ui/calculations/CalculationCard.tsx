import { Button, Typography } from '@mui/material'
import Link from 'next/link'
import { calculate } from '@/core/calculator'
import { calculators } from '@/core/calculators'
import type { Calculation } from '@/core/job/schema'
import { Card, Row } from '../common/pieces'
import { useWorkspace } from '../workspace/store'

export function CalculationCard({ calculation }: { calculation: Calculation }) {
  const jobId = useWorkspace(s => s.id)
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const showWorking = useWorkspace(s => s.showWorking)
  const { id, calculator: name, note, input } = calculation
  const calculator = calculators.find(c => c.name === name)
  const outcome = calculator && calculate(calculator, input)
  const link = new URLSearchParams({ job: jobId, calculation: id })
  return (
    <Card
      component="article"
      title={calculator?.question ?? name}
      sx={{ maxWidth: 760, borderTop: 5, borderTopColor: 'water.live' }}
    >
      {note && <p>{note}</p>}
      {outcome?.ok ? (
        <>
          <Typography variant="h2" component="p">
            {outcome.value.answer}
          </Typography>
          {outcome.value.findings.map(f => (
            <p key={f}>{f}</p>
          ))}
        </>
      ) : (
        <p>
          {outcome
            ? `Cannot be answered as it was kept: ${outcome.faults.map(f => `${f.path} ${f.message}`).join('; ')}.`
            : 'This Spillway has no such calculator.'}
        </p>
      )}
      <Row>
        {outcome?.ok && (
          <Button size="small" variant="outlined" onClick={() => showWorking(outcome.value.working)}>
            Show the working
          </Button>
        )}
        {calculator && (
          <Button size="small" component={Link} href={`/bench/${name}?${link}`}>
            Change on the bench
          </Button>
        )}
        <Button
          size="small"
          onClick={() => {
            act({ op: 'removeCalculation', calculationId: id })
            say('Removed. Undo takes it back.')
          }}
        >
          Remove
        </Button>
      </Row>
    </Card>
  )
}
