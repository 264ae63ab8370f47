import { type Evidence, type Hold, holdKinds } from './holds'
import { typedReading } from './typed'

type Facts = Omit<Evidence, 'by' | 'photoId'>

/**
 * What stands on paper at a hold point, typed in one line: readings in their order apart by blanks or commas, then the tool of a torque; initials; who looked as well; what was seen.
 * Or what cannot be read of it.
 */
export function typedHold(hold: Hold, line: string): { facts: Facts } | { problem: string } {
  const said = line.trim()
  const { asks } = holdKinds[hold.kind]
  if (!said) return { problem: 'must not be empty' }
  if (asks === 'second') return { facts: { with: said } }
  if (asks !== 'readings') return { facts: { text: said } }
  const words = said.split(/[\s,;]+/)
  const { length } = hold.readings
  const values = hold.readings.map((asked, n) => ({ asked, got: typedReading(words[n] ?? '', asked) }))
  const bad = values.find(v => 'problem' in v.got)
  if (bad && 'problem' in bad.got)
    return {
      problem: `wants ${length} in this order: ${hold.readings.map(r => r.name).join(', ')}; ${bad.asked.name} ${bad.got.problem}`,
    }
  const rest = words.slice(length).join(' ')
  return {
    facts: {
      readings: values.flatMap(({ asked, got }) =>
        'value' in got ? [{ key: asked.key, value: got.value }] : [],
      ),
      ...(rest && (hold.kind === 'torque' ? { tool: rest } : { text: rest })),
    },
  }
}
