import { useRouter } from 'next/navigation'
import { useShortcut, useShortcuts } from '../common/keys'
import { useWorkspaceStore } from './store'
import { views } from './views'

const steps = views.map(v => v.key)

/** The keys that work anywhere in the workspace: undo, redo, commands, shortcuts, one for each step. */
export function useKeys({ onShortcuts, onPalette }: { onShortcuts: () => void; onPalette: () => void }) {
  const { getState } = useWorkspaceStore()
  const router = useRouter()
  useShortcut('commands', onPalette)
  useShortcut('sheet', onShortcuts)
  useShortcut('undo', () => getState().back('undo'))
  useShortcut('redo', () => getState().back('redo'))
  useShortcut('close', () => getState().select(null))
  useShortcuts(steps, step => router.push(`/jobs/${getState().id}/${step}`))
}
