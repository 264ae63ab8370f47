import { Button } from '@mui/material'
import { useDeferredValue, useMemo } from 'react'
import { quantity } from '@/core/units/format'
import { choicesOf } from '@/core/work/parts/alternatives'
import { Problem } from '../common/Problem'
import { Card, Columns, Quiet } from '../common/pieces'
import { Options } from '../form/Options'
import { useFirmParts, useFirmPartsChanges } from '../parts/useFirmParts'
import { useWorkspace } from '../workspace/store'

const more = (usd: number | null) => {
  if (usd === null) return ' (price not known)'
  if (Math.abs(usd) < 0.5) return ' (the same here)'
  return ` (${usd > 0 ? '+' : '−'}${quantity(Math.abs(usd), '$')})`
}

const later = (usd: number | null | undefined) =>
  usd ? ` now; the same later, by itself, ${quantity(usd, '$')}` : ''

/** What the Code leaves open and the firm decides, with what each other way costs more or less on this job. */
export function HabitsCard() {
  const act = useWorkspace(s => s.act)
  const job = useDeferredValue(useWorkspace(s => s.job))
  const { data: firm } = useFirmParts()
  const prices = firm?.prices
  const change = useFirmPartsChanges()
  const habits = job.wiring?.habits ?? {}
  const asFirm =
    JSON.stringify(Object.entries(habits).sort()) ===
    JSON.stringify(Object.entries(firm?.habits ?? {}).sort())
  const choices = useMemo(() => choicesOf(job, prices ?? []), [job, prices])
  return (
    <Card
      title="As the firm likes it"
      className="no-print"
      tools={
        firm && asFirm ? (
          <Quiet component="span">New jobs begin like this.</Quiet>
        ) : (
          firm && (
            <Button
              size="small"
              onClick={() => firm && change.mutate({ act: 'habits', habits, version: firm.version })}
            >
              Begin new jobs like this
            </Button>
          )
        )
      }
    >
      {change.error && <Problem>{change.error.message}</Problem>}
      <Quiet>Each other way is worked out whole, with the prices of your book.</Quiet>
      <Columns least={300}>
        {choices.map(({ habit, title, why, alternatives }) => (
          <Options
            key={habit}
            label={title}
            help={why}
            row={false}
            value={String(alternatives.findIndex(a => a.chosen))}
            options={alternatives.map((a, n) => ({
              value: String(n),
              label: `${a.label}${prices && !a.chosen ? more(a.moreUsd) + later(a.laterUsd) : ''}`,
            }))}
            onChange={n => {
              const facts = alternatives[Number(n)]?.facts
              if (facts) act({ op: 'setHabits', facts })
            }}
          />
        ))}
      </Columns>
    </Card>
  )
}
