import { Snackbar } from '@mui/material'
import { useWorkspace } from './store'

/** One line about what happened, which goes by itself. */
export function Notice() {
  const notice = useWorkspace(s => s.notice)
  const say = useWorkspace(s => s.say)
  return (
    <Snackbar
      key={notice}
      open
      autoHideDuration={9000}
      onClose={(_, why) => why !== 'clickaway' && say(null)}
      message={notice}
    />
  )
}
