'use client'
import Drawer from '@mui/material/Drawer'
import IconButton from '@mui/material/IconButton'
import { X } from 'lucide-react'
import { WorkingView } from '../common/WorkingView'
import { useWorkspace } from './store'
import styles from './Workspace.module.css'

/** The working of a figure, over the right side of the screen. */
export function WorkingDrawer() {
  const working = useWorkspace(s => s.working)
  const showWorking = useWorkspace(s => s.showWorking)
  const close = () => showWorking(null)
  if (!working) return null
  return (
    <Drawer
      anchor="right"
      open
      onClose={close}
      slotProps={{
        paper: { className: styles.working, role: 'dialog', 'aria-label': `Working: ${working.title}` },
      }}
    >
      <IconButton className={styles.close} aria-label="Close the working" onClick={close}>
        <X size={20} aria-hidden />
      </IconButton>
      <WorkingView working={working} />
    </Drawer>
  )
}
