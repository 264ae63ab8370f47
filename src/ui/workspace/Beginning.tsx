import { List, ListItem, ListItemButton, ListItemIcon, ListItemText, Typography } from '@mui/material'
import { Check, Circle } from 'lucide-react'
import Link from 'next/link'
import { useId } from 'react'
import { firstSteps } from '@/core/assess/first-steps'
import { useWorkspace } from './store'

/** Instead of a balance of nothing: what comes first, and what of it is done. */
export function Beginning() {
  const steps = firstSteps(useWorkspace(s => s.job))
  const id = useWorkspace(s => s.id)
  const title = useId()
  const next = steps.find(s => !s.done)
  return (
    <>
      <Typography variant="subtitle2" id={title} sx={{ px: 1.75, pt: 1 }}>
        What comes first
      </Typography>
      <List aria-labelledby={title}>
        {steps.map(step => (
          <ListItem key={step.what} disablePadding>
            <ListItemButton component={Link} href={`/jobs/${id}/${step.view}`} selected={step === next}>
              <ListItemIcon sx={{ minWidth: 32, color: 'primary.main' }}>
                {step.done ? (
                  <Check size={18} strokeWidth={3} aria-label="done" />
                ) : (
                  <Circle size={14} aria-hidden />
                )}
              </ListItemIcon>
              <ListItemText primary={step.what} />
            </ListItemButton>
          </ListItem>
        ))}
      </List>
    </>
  )
}
