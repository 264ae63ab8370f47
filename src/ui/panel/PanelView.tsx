'use client'
import Button from '@mui/material/Button'
import Drawer from '@mui/material/Drawer'
import useMediaQuery from '@mui/material/useMediaQuery'
import dynamic from 'next/dynamic'
import { type ReactNode, useCallback, useEffect, useLayoutEffect, useState } from 'react'
import { isTyping } from '../common/typing'
import { useWorkspace } from '../workspace/store'
import { CircuitInspector } from './CircuitInspector'
import { PanelDrawing } from './PanelDrawing'
import styles from './PanelView.module.css'

const loadDialog = () => import('./AddBreakerDialog').then(m => m.AddBreakerDialog)
const AddBreakerDialog = dynamic(loadDialog)
const loadEntry = () => import('./EnterBreakers').then(m => m.EnterBreakers)
const EnterBreakers = dynamic(loadEntry)

export function PanelView() {
  const [adding, setAdding] = useState<number | null>(null)
  const narrow = useMediaQuery('(max-width: 1100px)')
  const detailsOpen = useWorkspace(s => s.detailsOpen)
  const select = useWorkspace(s => s.select)
  const [entering, setEntering] = useState(false)
  // before the first paint: who sees the panel can press the key
  useLayoutEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const plain = !event.ctrlKey && !event.metaKey && !event.altKey && !isTyping(event.target)
      if (event.key !== 'e' || !plain || document.querySelector('[role="dialog"]')) return
      event.preventDefault()
      setEntering(true)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
  const onAdd = useCallback((space: number) => setAdding(space), [])
  // fetched behind the first paint, so that nothing typed at once is lost
  useEffect(() => void Promise.all([loadDialog(), loadEntry()]), [])
  return (
    <div className={styles.view}>
      <h1 className="visually-hidden">Panel</h1>
      <div className={styles.drawing}>
        {entering && <EnterBreakers onClose={() => setEntering(false)} />}
        <PanelDrawing onAdd={onAdd} />
        <Legend>
          {!entering && (
            <Button size="small" variant="outlined" onClick={() => setEntering(true)}>
              Enter breakers by line (E)
            </Button>
          )}
        </Legend>
      </div>
      {narrow && (
        <Drawer
          anchor="bottom"
          open={detailsOpen}
          onClose={() => select(null)}
          slotProps={{ paper: { className: styles.sheet } }}
        >
          <CircuitInspector />
        </Drawer>
      )}
      {!narrow && (
        <aside className={styles.side} aria-label="Circuit">
          <CircuitInspector />
        </aside>
      )}
      {adding !== null && <AddBreakerDialog space={adding} onClose={() => setAdding(null)} />}
    </div>
  )
}

function Legend({ children }: { children: ReactNode }) {
  return (
    <div className={styles.legend}>
      <p>
        Tap to pick; the dots open a circuit. Filled: picked. Striped: picked but not served. N: shared
        neutral.
      </p>
      {children}
    </div>
  )
}
