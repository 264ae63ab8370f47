import { FindingCard } from '../common/FindingCard'
import { Column } from '../common/pieces'
import { useWorkspace } from '../workspace/store'
import { findingsOf, type ViewKey } from '../workspace/views'

/** The findings that are mended on this screen. */
export function FindingsHere({ view }: { view: ViewKey }) {
  const findings = useWorkspace(s => s.evaluation.findings)
  const mine = findingsOf(view, findings)
  if (!mine.length) return null
  return (
    <Column component="section" aria-label="Findings here">
      {mine.map(f => (
        <FindingCard key={f.id + f.sentence} finding={f} here />
      ))}
    </Column>
  )
}
