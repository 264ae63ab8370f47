import { Button } from '@mui/material'
import { parseWith } from '@/core/outcome'
import { legOf, occupancy, spaceName } from '@/core/panel/positions'
import { breakerRatings, type Circuit, circuitSchema } from '@/core/panel/schema'
import { toPlan } from '@/core/plan/change'
import { Popup } from '../common/Popup'
import { Columns } from '../common/pieces'
import { FormDialog } from '../form/Form'
import { ChoiceField, LineField } from '../form/inputs'
import { useSheet } from '../form/useSheet'
import { shownPanel, useWorkspace } from '../workspace/store'

interface Props {
  space: number
  half: 'a' | 'b' | undefined
  onClose: () => void
}

const kinds = {
  one: { poles: 1, label: 'one-pole, 120 V' },
  two: { poles: 2, label: 'two-pole, 240 V' },
  upper: { poles: 1, half: 'a', label: 'tandem, upper half' },
  lower: { poles: 1, half: 'b', label: 'tandem, lower half' },
  outer: { poles: 2, half: 'a', label: 'quad, outer pair' },
  inner: { poles: 2, half: 'b', label: 'quad, inner pair' },
} as const satisfies Record<string, { poles: 1 | 2; half?: 'a' | 'b'; label: string }>
type Kind = keyof typeof kinds

/** Puts a breaker into a free place; a blank label is allowed, as directories are. */
export function AddBreakerDialog({ space, half, onClose }: Props) {
  const panel = useWorkspace(shownPanel)
  const house = useWorkspace(s => s.house)
  const act = useWorkspace(s => s.act)
  const select = useWorkspace(s => s.select)
  const below = space + 2
  const roomBelow = below <= panel.spaces && !occupancy(panel.circuits).has(below)
  const name = spaceName(panel, space)
  const unusable = panel.unusable.includes(space)

  const sheet = useSheet<{ label: string; breakerA: number; kind: Kind }, Circuit>({
    values: { label: '', breakerA: 20, kind: half === 'a' ? 'upper' : half === 'b' ? 'lower' : 'one' },
    read: ({ label, breakerA, kind }) => {
      const { poles, ...halved } = kinds[kind]
      return parseWith(circuitSchema, {
        id: crypto.randomUUID(),
        position: space,
        poles,
        ...('half' in halved && { half: halved.half }),
        breakerA,
        label,
        purpose: 'loads',
        neutral: { kind: 'unknown' },
        protection: 'none',
        tier: 3,
        picked: false,
        loads: [],
      } satisfies Circuit)
    },
    save: circuit =>
      act(
        house === 'planned'
          ? toPlan({ kind: 'add', panelId: panel.id, circuit })
          : { op: 'addCircuit', panelId: panel.id, circuit },
      ),
    done: circuit => {
      select(circuit.id, false)
      onClose()
    },
  })
  const setUsable = (usable: boolean) => {
    const now = panel.unusable.filter(s => s !== space)
    const refused = act({
      op: 'setPanel',
      panelId: panel.id,
      facts: { unusable: usable ? now : [...now, space].sort((a, b) => a - b) },
    })
    for (const { message } of refused) sheet.form.setError('root', { message })
    if (!refused.length) onClose()
  }
  const options = (Object.keys(kinds) as Kind[])
    .filter(k => half === undefined || ('half' in kinds[k] && kinds[k].half === half))
    .map(value => {
      const two = kinds[value].poles === 2 && half === undefined
      return {
        value,
        label: two && !roomBelow ? `${kinds[value].label} (no room below)` : kinds[value].label,
        disabled: two && !roomBelow,
      }
    })
  const usable = half === undefined && (
    <Button onClick={() => setUsable(unusable)}>{unusable ? 'It can be used' : 'Cannot be used'}</Button>
  )
  if (unusable)
    return (
      <Popup title={`Space ${name}`} onClose={onClose} maxWidth="xs" actions={usable}>
        This space is marked as one that cannot be used.
      </Popup>
    )
  return (
    <FormDialog
      sheet={sheet}
      title={`Breaker at ${name}${half?.toUpperCase() ?? ''}, ${legOf(panel, space)}`}
      save={house === 'planned' ? 'Plan it' : 'Add'}
      onClose={onClose}
      extra={usable}
    >
      <LineField
        name="label"
        label="Label"
        autoFocus
        help="As the directory has it; blank if it says nothing"
      />
      <Columns least={140}>
        <ChoiceField
          name="breakerA"
          label="Breaker"
          options={breakerRatings.map(value => ({ value, label: `${value} A` }))}
        />
        <ChoiceField name="kind" label="Kind" options={options} />
      </Columns>
    </FormDialog>
  )
}
