import { Autocomplete, Dialog, TextField } from '@mui/material'
import { useRouter } from 'next/navigation'
import { placeText } from '@/core/job/panels'
import { shortcuts } from '../common/keys'
import { useWorkspace } from './store'
import { views } from './views'

interface Entry {
  label: string
  group: string
  /** the shortcut that does the same */
  keys?: string
  run: () => void
}

/** Every action by name: screens, circuits, the fixes of the findings, undo. */
export function Palette({ onClose, onFacts }: { onClose: () => void; onFacts: () => void }) {
  const router = useRouter()
  const id = useWorkspace(s => s.id)
  const job = useWorkspace(s => s.job)
  const findings = useWorkspace(s => s.evaluation.findings)
  const act = useWorkspace(s => s.act)
  const back = useWorkspace(s => s.back)
  const entries: Entry[] = [
    ...views.map(v => ({
      label: `Go to ${v.label}`,
      group: 'Steps',
      keys: shortcuts[v.key].shown,
      run: () => router.push(`/jobs/${id}/${v.key}`),
    })),
    { label: 'All jobs', group: 'Steps', run: () => router.push('/jobs') },
    { label: 'Ask the bench', group: 'Steps', run: () => router.push(`/bench?job=${id}`) },
    { label: 'Name, place, step and Code edition', group: 'Job', run: onFacts },
    { label: 'Undo', group: 'Job', keys: shortcuts.undo.shown, run: () => back('undo') },
    { label: 'Redo', group: 'Job', keys: shortcuts.redo.shown, run: () => back('redo') },
    ...findings.flatMap(f =>
      f.fixes.map(fix => ({
        label: fix.label,
        group: 'Fixes',
        run: () => {
          act({ op: 'applyFix', label: fix.label, operations: fix.operations })
        },
      })),
    ),
    ...job.panels.flatMap(panel =>
      panel.circuits.map(c => ({
        label: `${c.picked ? 'Drop' : 'Pick'} ${placeText(job, panel, c)} ${c.label || 'unlabelled'}`,
        group: 'Circuits',
        run: () => {
          act({ op: 'selectCircuit', circuitId: c.id, picked: !c.picked })
        },
      })),
    ),
  ]
  return (
    <Dialog
      open
      onClose={onClose}
      fullWidth
      maxWidth="sm"
      aria-label="Commands"
      slotProps={{ paper: { sx: { minHeight: 480 } } }}
    >
      <Autocomplete
        open
        openOnFocus
        disablePortal
        options={entries}
        groupBy={e => e.group}
        getOptionLabel={e => e.label}
        renderOption={({ key, ...props }, e) => (
          <li key={key} {...props}>
            <span style={{ flexGrow: 1 }}>{e.label}</span>
            {e.keys && <kbd>{e.keys}</kbd>}
          </li>
        )}
        getOptionKey={e => `${e.group} ${e.label}`}
        autoHighlight
        sx={{ p: 2 }}
        slotProps={{
          paper: { elevation: 0 },
          listbox: { sx: { maxHeight: 400 } },
          popper: {
            sx: { position: 'static !important', transform: 'none !important', width: '100% !important' },
          },
        }}
        onChange={(_, entry) => {
          onClose()
          entry?.run()
        }}
        onClose={(_, why) => why === 'escape' && onClose()}
        renderInput={params => <TextField {...params} autoFocus label="What do you want to do?" />}
      />
    </Dialog>
  )
}
