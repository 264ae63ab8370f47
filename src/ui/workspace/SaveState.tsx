import { Box } from '@mui/material'
import { plural } from '@/core/units/format'
import { wide } from '../common/TopBar'
import { text } from '../theme/tokens'
import { useWorkspace } from './store'

/** Whether what stands on the screen is also in the database. */
export function SaveState() {
  const saving = useWorkspace(s => s.saving)
  const pending = useWorkspace(s => s.pending.length)
  const revision = useWorkspace(s => s.revision)
  const said =
    saving === 'waiting' ? `Not saved: ${plural(pending, 'change')} kept here` : pending ? 'Saving' : 'Saved'
  return (
    <Box
      component="output"
      sx={{
        fontSize: text.quiet,
        color: 'text.secondary',
        lineHeight: 1.15,
        whiteSpace: { sm: 'nowrap' },
        ...(saving === 'waiting' && {
          px: 1,
          py: 0.5,
          maxWidth: { xs: 120, sm: 'none' },
          border: '2px dashed',
          color: 'severity.fix',
          fontWeight: 700,
        }),
      }}
      data-state={saving === 'waiting' ? 'waiting' : pending ? 'saving' : 'saved'}
    >
      {said}
      {said !== 'Saving' && (
        <Box component="span" sx={wide}>
          {said === 'Saved' ? `, revision ${revision}` : ', trying again'}
        </Box>
      )}
    </Box>
  )
}
