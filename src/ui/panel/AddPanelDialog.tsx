import { ok } from '@/core/outcome'
import { positionText } from '@/core/panel/positions'
import { bare, mainsOffered } from '@/core/panel/schema'
import { Columns } from '../common/pieces'
import { FormDialog } from '../form/Form'
import { ChoiceField, LineField } from '../form/inputs'
import { useSheet } from '../form/useSheet'
import { useWorkspace } from '../workspace/store'

/** Adds a panel, usually one that is fed from a two-pole of another. */
export function AddPanelDialog({ onClose }: { onClose: () => void }) {
  const job = useWorkspace(s => s.job)
  const act = useWorkspace(s => s.act)
  const showPanel = useWorkspace(s => s.showPanel)
  const free = 'BCDEFGHIJ'.split('').find(m => !job.panels.some(p => p.mark === m)) ?? ''
  const taken = new Set(job.panels.map(p => p.feederId))
  const feeders = job.panels.flatMap(p =>
    p.circuits
      .filter(c => c.poles === 2 && !taken.has(c.id))
      .map(c => ({ value: c.id, label: `${p.name}: ${positionText(p, c)} ${c.label || 'unlabelled'}` })),
  )
  const sheet = useSheet({
    values: { name: 'Sub-panel', mark: free, spaces: 12, mainA: 0, feederId: '' },
    read: typed => ok(typed),
    save: typed => {
      const panel = {
        ...bare(crypto.randomUUID(), typed.name.trim(), typed.spaces, typed.mainA || undefined),
        mark: typed.mark.trim(),
        supply: 'fed from another panel' as const,
        ...(typed.feederId && { feederId: typed.feederId }),
      }
      const refused = act({ op: 'addPanel', panel })
      if (!refused.length) showPanel(panel.id)
      return refused.map(f => ({ ...f, path: f.path.split('.').at(-1) ?? f.path }))
    },
    done: onClose,
  })
  return (
    <FormDialog sheet={sheet} title="Another panel of this job" save="Add" onClose={onClose}>
      <Columns least={140}>
        <LineField name="name" label="Name" autoFocus />
        <LineField name="mark" label="Mark" help="before its positions" />
        <ChoiceField
          name="spaces"
          label="Spaces"
          options={[4, 6, 8, 10, 12, 16, 20, 24, 30, 32, 40, 42].map(value => ({ value, label: `${value}` }))}
        />
        <ChoiceField
          name="mainA"
          label="Main"
          options={[
            { value: 0, label: 'main lugs only' },
            ...mainsOffered.map(value => ({ value, label: `${value} A` })),
          ]}
        />
      </Columns>
      <ChoiceField
        name="feederId"
        label="Fed by"
        options={[{ value: '', label: 'a breaker that is not in this job' }, ...feeders]}
      />
    </FormDialog>
  )
}
