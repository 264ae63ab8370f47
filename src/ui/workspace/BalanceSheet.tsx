import { Drawer } from '@mui/material'
import { Balance } from './Balance'

/** The whole balance, from below, on a phone. */
export function BalanceSheet({ onClose }: { onClose: () => void }) {
  return (
    <Drawer anchor="bottom" open onClose={onClose} slotProps={{ paper: { sx: { maxHeight: '88vh' } } }}>
      <Balance />
    </Drawer>
  )
}
