'use client'
import Button from '@mui/material/Button'
import Link from 'next/link'
import { calculate } from '@/core/calculator'
import { calculators } from '@/core/calculators'
import type { Calculation } from '@/core/job/schema'
import { useWorkspace } from '../workspace/store'
import styles from './CalculationsView.module.css'

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
    <article className={styles.card}>
      <h2>{calculator?.question ?? name}</h2>
      {note && <p>{note}</p>}
      {outcome?.ok ? (
        <>
          <p className={styles.answer}>{outcome.value.answer}</p>
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
      <div className={styles.actions}>
        {outcome?.ok && (
          <Button size="small" variant="outlined" onClick={() => showWorking(outcome.value.working)}>
            Show the working
          </Button>
        )}
        {calculator && <Link href={`/bench/${name}?${link}`}>Change on the bench</Link>}
        <Button
          size="small"
          onClick={() => {
            act({ op: 'removeCalculation', calculationId: id })
            say('Removed. Undo takes it back.')
          }}
        >
          Remove
        </Button>
      </div>
    </article>
  )
}
