import { Button } from '@mui/material'
import { plural } from '@/core/units/format'
import { Popup } from '../common/Popup'
import { useWorkspace } from './store'

/** Someone else saved in between: what they did, what waits here, and the person decides. */
export function ConflictDialog() {
  const conflict = useWorkspace(s => s.conflict)
  const pending = useWorkspace(s => s.pending)
  const resolve = useWorkspace(s => s.resolve)
  if (!conflict) return null
  return (
    <Popup
      title="This job was changed elsewhere meanwhile"
      close={null}
      actions={
        <>
          <Button onClick={() => resolve('theirs')}>
            Put {plural(pending.length, 'change')} of mine aside
          </Button>
          <Button variant="contained" autoFocus onClick={() => resolve('mine-on-top')}>
            Put mine on top
          </Button>
        </>
      }
    >
      <h3>Saved by others</h3>
      <ul>
        {conflict.others.changes > conflict.since.length && (
          <li>{plural(conflict.others.changes - conflict.since.length, 'earlier change')}</li>
        )}
        {conflict.since.map(r => (
          <li key={r.revision}>
            {r.person} {r.sentence} (revision {r.revision})
          </li>
        ))}
      </ul>
      <h3>Made here, not saved yet</h3>
      <ul>
        {pending.map(c => (
          <li key={c.id}>{c.kind === 'do' ? c.sentence : `${c.kind} (cannot be put on top)`}</li>
        ))}
      </ul>
    </Popup>
  )
}
