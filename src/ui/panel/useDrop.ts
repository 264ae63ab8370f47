import { spaceName } from '@/core/panel/positions'
import type { Panel } from '@/core/panel/schema'
import { useWorkspace, useWorkspaceStore } from '../workspace/store'

/** Puts the breaker that is being moved into a space, or says why it cannot stand there. */
export function useDrop(panel: Panel): (space: number) => void {
  const store = useWorkspaceStore()
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  return space => {
    const { moving, move } = store.getState()
    const circuit = panel.circuits.find(c => c.id === moving?.id)
    if (!circuit) return
    if (space === circuit.position) return move(null)
    const [fault] = act({ op: 'moveBreaker', circuitId: circuit.id, toPosition: space })
    if (fault) return say(`Not moved: the panel ${fault.message}.`)
    move(null)
    say(`Moved ${circuit.label || 'the breaker'} to ${spaceName(panel, space)}. Undo takes it back.`)
  }
}
