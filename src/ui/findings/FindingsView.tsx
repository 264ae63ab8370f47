'use client'
import { List, ListItem, ListItemText } from '@mui/material'
import type { Settled } from '@/core/assess/plan-told'
import { type Severity, severities } from '@/core/checks/finding'
import { deference } from '@/core/deference'
import { sentenceStart } from '@/core/units/format'
import { FindingCard } from '../common/FindingCard'
import { Card, Column, Quiet, View } from '../common/pieces'
import { SeverityTag } from '../common/SeverityTag'
import { useWorkspace } from '../workspace/store'

const meaning: Record<Severity, string> = {
  stop: 'someone can be hurt, equipment destroyed, or it will not work',
  fix: 'against the Code or an instruction',
  mind: 'will annoy or surprise',
  ask: 'a fact is missing',
}

/** Every finding, gravest first. Nothing is hidden. */
export function FindingsView() {
  const findings = useWorkspace(s => s.evaluation.findings)
  const settled = useWorkspace(s => s.evaluation.settled)
  return (
    <View title="Findings">
      {!findings.length && (
        <p>The checks find nothing on this job as it stands. That is not a judgement of the installation.</p>
      )}
      {severities.map(severity => {
        const mine = findings.filter(f => f.severity === severity)
        if (!mine.length) return null
        return (
          <Column key={severity} component="section" aria-label={severity}>
            <h2>
              {sentenceStart(severity)} <Quiet component="span">{meaning[severity]}</Quiet>
            </h2>
            {mine.map(f => (
              <FindingCard key={f.id + f.sentence} finding={f} />
            ))}
          </Column>
        )
      })}
      {settled.length > 0 && <SettledByPlan settled={settled} />}
      <Quiet>{deference}</Quiet>
    </View>
  )
}

/** What stands against the house as it is today and the plan cures; what endangers somebody today comes first. */
function SettledByPlan({ settled }: { settled: readonly Settled[] }) {
  const parts = [
    { title: 'In the house as it stands today', mine: settled.filter(s => s.today) },
    { title: 'Settled by the plan', mine: settled.filter(s => !s.today) },
  ].filter(p => p.mine.length)
  return parts.map(({ title, mine }) => (
    <Card key={title} title={title}>
      <List dense disablePadding>
        {mine.map(({ finding, text, today }) => (
          <ListItem key={finding.key} disableGutters divider>
            <ListItemText
              primary={
                <>
                  <SeverityTag severity={finding.severity} /> {finding.sentence}
                </>
              }
              secondary={`${sentenceStart(text)}${today ? '. Until that is built it is as dangerous as it was found.' : '.'}`}
            />
          </ListItem>
        ))}
      </List>
    </Card>
  ))
}
