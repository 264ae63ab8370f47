'use client'
import Drawer from '@mui/material/Drawer'
import useMediaQuery from '@mui/material/useMediaQuery'
import dynamic from 'next/dynamic'
import { useCallback, useEffect, useState } from 'react'
import { useWorkspace } from '../workspace/store'
import { CircuitInspector } from './CircuitInspector'
import { PanelDrawing } from './PanelDrawing'
import styles from './PanelView.module.css'

const loadDialog = () => import('./AddBreakerDialog').then(m => m.AddBreakerDialog)
const AddBreakerDialog = dynamic(loadDialog)

export function PanelView() {
  const [adding, setAdding] = useState<number | null>(null)
  const narrow = useMediaQuery('(max-width: 1100px)')
  const detailsOpen = useWorkspace(s => s.detailsOpen)
  const select = useWorkspace(s => s.select)
  const onAdd = useCallback((space: number) => setAdding(space), [])
  // fetched behind the first paint, so that nothing typed at once is lost
  useEffect(() => void loadDialog(), [])
  return (
    <div className={styles.view}>
      <h1 className="visually-hidden">Panel</h1>
      <div className={styles.drawing}>
        <PanelDrawing onAdd={onAdd} />
        <Legend />
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

function Legend() {
  return (
    <p className={styles.legend}>
      Tap to pick; the dots open a circuit. Filled: picked. Striped: picked but not served. N: shared neutral.
    </p>
  )
}
