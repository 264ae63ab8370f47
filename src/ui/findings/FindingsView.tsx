'use client'
import { type Severity, severities } from '@/core/checks/finding'
import { deference } from '@/core/deference'
import { sentenceStart } from '@/core/units/format'
import { FindingCard } from '../common/FindingCard'
import { Column, Quiet, View } from '../common/pieces'
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
      <Quiet>{deference}</Quiet>
    </View>
  )
}
