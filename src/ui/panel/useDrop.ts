import { spaceName } from '@/core/panel/positions'
import type { Panel } from '@/core/panel/schema'
import { useWorkspace, useWorkspaceStore } from '../workspace/store'

/** Plans the breaker that is being moved for a space, or says why it cannot stand there. */
export function useDrop(panel: Panel): (space: number) => void {
  const store = useWorkspaceStore()
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  return space => {
    const { moving, move } = store.getState()
    const circuit = panel.circuits.find(c => c.id === moving?.id)
    if (!circuit) return
    if (space === circuit.position) return move(null)
    const [fault] = act({ op: 'planMove', circuitId: circuit.id, toPosition: space })
    if (fault) return say(`Not planned: the panel ${fault.message}.`)
    move(null)
    say(
      `Planned: ${circuit.label || 'the breaker'} moves to ${spaceName(panel, space)}. The survey stays; Undo takes it back.`,
    )
  }
}
