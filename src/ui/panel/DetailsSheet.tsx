import { Drawer } from '@mui/material'
import { useWorkspace } from '../workspace/store'
import { CircuitInspector } from './CircuitInspector'

/** The sheet of a circuit, from below, where the screen is narrow. */
export function DetailsSheet() {
  const select = useWorkspace(s => s.select)
  return (
    <Drawer
      anchor="bottom"
      open
      onClose={() => select(null)}
      slotProps={{ paper: { sx: { maxHeight: '85vh', p: 1.5, pb: 3 } } }}
    >
      <CircuitInspector />
    </Drawer>
  )
}
