'use client'
import { useRouter } from 'next/navigation'
import { useEffect } from 'react'
import { isTyping } from '../common/typing'
import { useWorkspaceStore } from './store'
import { views } from './views'

/** The keys that work anywhere in the workspace: undo, redo, commands, shortcuts, digits for the steps. */
export function useKeys({ onShortcuts, onPalette }: { onShortcuts: () => void; onPalette: () => void }) {
  const store = useWorkspaceStore()
  const router = useRouter()
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const command = event.ctrlKey || event.metaKey
      const key = event.key.toLowerCase()
      if (command && key === 'k') {
        event.preventDefault()
        return onPalette()
      }
      if (isTyping(event.target)) return
      if (command && (key === 'z' || key === 'y')) {
        event.preventDefault()
        return store.getState().back(key === 'y' || event.shiftKey ? 'redo' : 'undo')
      }
      if (command || event.altKey || document.querySelector('[role="dialog"]')) return
      if (event.key === '?') return onShortcuts()
      if (event.key === 'Escape') return store.getState().select(null)
      // the tenth is at 0
      const view = /^\d$/.test(event.key)
        ? views[(Number(event.key) + 9) % 10]
        : key === 'o' || key === 'c'
          ? views.find(v => v.key === (key === 'o' ? 'one-line' : 'calculations'))
          : undefined
      if (view) router.push(`/jobs/${store.getState().id}/${view.key}`)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  })
}
