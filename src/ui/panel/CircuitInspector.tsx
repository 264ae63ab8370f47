import { Button, List, ListItem, ListItemButton, ListItemText } from '@mui/material'
import dynamic from 'next/dynamic'
import { memo, useDeferredValue, useMemo, useState } from 'react'
import { placeText } from '@/core/job/panels'
import { quantity } from '@/core/units/format'
import { Column, FigureLink } from '../common/pieces'
import { shownCircuits, shownPanel, useShownJob, useWorkspace } from '../workspace/store'
import type { View } from './inspected'

const CircuitSheet = dynamic(() => import('./CircuitSheet').then(m => m.CircuitSheet))
const JudgePanel = dynamic(() => import('./JudgePanel').then(m => m.JudgePanel))

/**
 * Everything about one circuit, edited in place: each field saves when it is left.
 * Its many fields are drawn after the panel and the balance, which answer a tap at once.
 */
export function CircuitInspector() {
  const selectedId = useWorkspace(s => s.selectedId)
  const job = useShownJob()
  const panel = useWorkspace(shownPanel)
  const findings = useWorkspace(s => s.evaluation.findings)
  const states = useWorkspace(shownCircuits)
  const legs = useWorkspace(s => s.evaluation.legs)
  const arrangement = useWorkspace(s => s.job.source?.arrangement)
  const now = useMemo(
    () => ({
      circuit: panel.circuits.find(c => c.id === selectedId),
      panel,
      job,
      findings,
      states,
      legs,
      arrangement,
    }),
    [selectedId, panel, job, findings, states, legs, arrangement],
  )
  const later = useDeferredValue(now)
  // until the fields of this circuit are drawn, those of another cannot be typed into
  return (
    <div inert={later.circuit?.id !== now.circuit?.id}>
      <Inspector view={later} />
    </div>
  )
}

const Inspector = memo(function Inspector({ view }: { view: View }) {
  const { circuit } = view
  return circuit ? <CircuitSheet circuit={circuit} view={view} /> : <Overview view={view} />
})

/** What is picked, by importance, while no circuit is open. */
function Overview({ view: { job, panel, states, legs, arrangement } }: { view: View }) {
  const showWorking = useWorkspace(s => s.showWorking)
  const select = useWorkspace(s => s.select)
  const [judging, setJudging] = useState(false)
  const picked = job.panels.flatMap(p =>
    p.circuits.filter(c => c.picked).map(c => ({ ...c, at: placeText(job, p, c) })),
  )
  if (!panel.circuits.length)
    return (
      <Column>
        <h2>An empty panel</h2>
        <p>
          Press a free space to add the breaker that stands there. Size, numbering and what is on the sticker
          stand under This panel.
        </p>
        <p>
          Or press <kbd>E</kbd> and type them as you read them, a line each: 7 20 kitchen counter.
        </p>
      </Column>
    )
  return (
    <Column>
      <h2>Picked for the outage</h2>
      {!picked.length && <p>Nothing yet. Tap the breakers that must stay alive.</p>}
      {([1, 2, 3] as const).map(tier => {
        const here = picked.filter(c => c.tier === tier)
        if (!here.length) return null
        return (
          <section key={tier} aria-label={tierNames[tier]}>
            <h3>{tierNames[tier]}</h3>
            <List dense disablePadding>
              {here.map(c => (
                <ListItem key={c.id} disablePadding divider>
                  <ListItemButton disableGutters sx={{ gap: 1 }} onClick={() => select(c.id, true)}>
                    <b style={{ minWidth: 32 }}>{c.at}</b>
                    <ListItemText
                      primary={c.label || 'Unlabelled'}
                      secondary={`${quantity(states.find(s => s.id === c.id)?.meanW ?? 0, 'W')} average`}
                    />
                  </ListItemButton>
                </ListItem>
              ))}
            </List>
          </section>
        )
      })}
      {legs && (
        <FigureLink onClick={() => showWorking(legs.working)}>
          L1 {quantity(legs.L1A, 'A')} · L2 {quantity(legs.L2A, 'A')} · neutral {quantity(legs.neutralA, 'A')}
          {arrangement === 'split-phase' &&
            `, ${quantity(legs.imbalanceFraction, 'fraction')} out of balance`}
        </FigureLink>
      )}
      <Button size="small" aria-expanded={judging} onClick={() => setJudging(!judging)}>
        {judging ? 'Hide what carries these' : 'What carries these, what the panel can take'}
      </Button>
      {judging && <JudgePanel job={job} panel={panel} />}
    </Column>
  )
}

const tierNames = { 1: 'Must run', 2: 'Should run', 3: 'May go' } as const
