import type { About } from '@/core/ask/evidence'
import { placeText } from '@/core/job/panels'
import { Choice } from '../form/Choice'
import { useWorkspace } from '../workspace/store'

const keyOf = (about: About) =>
  about.kind === 'panel'
    ? `panel:${about.panelId}`
    : about.kind === 'circuit'
      ? `circuit:${about.circuitId}`
      : about.kind === 'load'
        ? `load:${about.circuitId}:${about.loadId}`
        : about.kind

interface Props {
  label: string
  about: About
  onChange: (about: About) => void
}

/** What a photograph or a mark shows: a panel, a circuit, a load, the wall. */
export function AboutChoice({ label, about, onChange }: Props) {
  const job = useWorkspace(s => s.job)
  const all: { about: About; label: string }[] = [
    { about: { kind: 'wall' }, label: 'the wall' },
    { about: { kind: 'other' }, label: 'something else' },
    ...job.panels.flatMap(panel => [
      { about: { kind: 'panel' as const, panelId: panel.id }, label: panel.name },
      ...panel.circuits.flatMap(c => {
        const name = `${placeText(job, panel, c)} ${c.label || 'unlabelled'}`
        return [
          { about: { kind: 'circuit' as const, circuitId: c.id }, label: name },
          ...c.loads.map(l => ({
            about: { kind: 'load' as const, circuitId: c.id, loadId: l.id },
            label: `${name}: ${l.name}`,
          })),
        ]
      }),
    ]),
  ]
  const value = keyOf(about)
  const known = all.some(a => keyOf(a.about) === value)
  return (
    <Choice
      label={label}
      value={value}
      options={[
        ...(known ? [] : [{ value, label: 'something that is gone' }]),
        ...all.map(a => ({ value: keyOf(a.about), label: a.label })),
      ]}
      onChange={key => {
        const found = all.find(a => keyOf(a.about) === key)
        if (found) onChange(found.about)
      }}
    />
  )
}
