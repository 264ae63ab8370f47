import { Box, List, ListItem, ListItemButton, ListSubheader } from '@mui/material'
import { Check, Circle, CircleDot, Lock, TriangleAlert } from 'lucide-react'
import type { TaskStand } from '@/core/order/stand'
import { phases, type Task } from '@/core/order/task'
import { minutesText } from '@/core/units/format'
import { Quiet } from '../common/pieces'
import type { Work } from './useWork'

const marks: Record<TaskStand['state'], { icon: typeof Check; word: string }> = {
  done: { icon: Check, word: 'done' },
  held: { icon: TriangleAlert, word: 'a hold point is open' },
  going: { icon: CircleDot, word: 'begun' },
  ready: { icon: Circle, word: 'can be done now' },
  waiting: { icon: Lock, word: 'waits for what comes first' },
}

interface Props {
  work: Work
  currentId: string | null
  onChoose: (task: Task) => void
}

/** Every step in its order, with how it stands; a heading where a phase or a window of power off begins. */
export function StepList({ work: { order, stand }, currentId, onChoose }: Props) {
  return (
    <List component="ol" disablePadding aria-label="Steps of the work">
      {order.tasks.map((t, n) => {
        const before = order.tasks[n - 1]
        const now = stand.tasks.get(t.id)
        const { icon: Mark, word } = marks[now?.state ?? 'waiting']
        const heading = before?.phase !== t.phase || before.window !== t.window
        return (
          <Box component="li" key={t.id}>
            {heading && (
              <ListSubheader component="div" disableSticky sx={{ lineHeight: 2.2, fontWeight: 700 }}>
                {phases[t.phase].name}
                {t.window !== null && ' · power off'}
              </ListSubheader>
            )}
            <ListItem component="div" disablePadding divider>
              <ListItemButton
                selected={t.id === currentId}
                aria-current={t.id === currentId ? 'step' : undefined}
                onClick={() => onChoose(t)}
                sx={{
                  gap: 1,
                  minHeight: 48,
                  alignItems: 'flex-start',
                  ...(t.window !== null && { borderLeft: 4, borderColor: 'severity.stop' }),
                }}
              >
                <Mark size={20} aria-label={word} style={{ flex: 'none' }} />
                <Box component="span" sx={{ flex: 1, minWidth: 0, overflowWrap: 'anywhere' }}>
                  {n + 1}. {t.text}
                  {now && now.at.length > 0 && <Quiet component="span"> {now.at.join(', ')}</Quiet>}
                </Box>
                <Quiet component="span" sx={{ whiteSpace: 'nowrap' }}>
                  {now?.minutes != null ? minutesText(now.minutes) : `~${minutesText(t.minutes)}`}
                </Quiet>
              </ListItemButton>
            </ListItem>
          </Box>
        )
      })}
    </List>
  )
}
