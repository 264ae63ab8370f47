import { Button } from '@mui/material'
import { moveMeans } from '@/core/panel/move'
import { positionText, spaceName } from '@/core/panel/positions'
import { Column } from '../common/pieces'
import { shownPanel, useWorkspace } from '../workspace/store'
import { useDrop } from './useDrop'

/** While a breaker is being moved: what it would change in the wiring at the place under the pointer or the focus. */
export function MovingStrip() {
  const panel = useWorkspace(shownPanel)
  const live = useWorkspace(s => (s.job.source?.arrangement === 'one-leg' ? s.job.source.liveLeg : null))
  const moving = useWorkspace(s => s.moving)
  const move = useWorkspace(s => s.move)
  const drop = useDrop(panel)
  const circuit = panel.circuits.find(c => c.id === moving?.id)
  if (!circuit || !moving) return null
  const { to } = moving
  const away = to !== null && to !== circuit.position
  return (
    <Column component="section" spacing={0.75} aria-label="Moving a breaker">
      <h2>
        Moving {positionText(panel, circuit)} {circuit.label || 'Unlabelled'}
        {away && ` to ${spaceName(panel, to)}`}
      </h2>
      {!away && <p>Tap the place, or go there with the arrows and press Enter.</p>}
      <ul aria-live="polite">
        {away && moveMeans(panel, circuit, to, live).map(line => <li key={line}>{line}</li>)}
      </ul>
      <div>
        {away && (
          <Button size="small" variant="contained" onClick={() => drop(to)}>
            Put it at {spaceName(panel, to)}
          </Button>
        )}
        <Button size="small" onClick={() => move(null)}>
          Leave it where it is (Esc)
        </Button>
      </div>
    </Column>
  )
}
