import { Drawer } from '@mui/material'
import { X } from 'lucide-react'
import { Tool } from '../common/Tool'
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
      <Tool
        sx={{ position: 'absolute', top: 8, right: 8 }}
        label="Close the working"
        onClick={close}
        icon={X}
      />
      <WorkingView working={working} />
    </Drawer>
  )
}
