'use client'
import Drawer from '@mui/material/Drawer'
import IconButton from '@mui/material/IconButton'
import { X } from 'lucide-react'
import { WorkingView } from '../common/WorkingView'
import { useWorkspace } from './store'

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
        paper: {
          sx: { width: 'min(480px, 100vw)', p: 2.5, pb: 5 },
          role: 'dialog',
          'aria-label': `Working: ${working.title}`,
        },
      }}
    >
      <IconButton
        sx={{ position: 'absolute', top: 8, right: 8 }}
        aria-label="Close the working"
        onClick={close}
      >
        <X size={20} aria-hidden />
      </IconButton>
      <WorkingView working={working} />
    </Drawer>
  )
}
