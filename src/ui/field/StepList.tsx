import { Box, List, ListItem, ListItemButton, ListSubheader } from '@mui/material'
import { Check, Circle, CircleDot, Lock, TriangleAlert } from 'lucide-react'
import { memo } from 'react'
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
  onChoose: (taskId: string) => void
}

/** Every step in its order, with how it stands; a heading where a phase or a window of power off begins. */
export function StepList({ work: { order, stand }, currentId, onChoose }: Props) {
  return (
    <List component="ol" disablePadding aria-label="Steps of the work">
      {order.tasks.map((t, n) => {
        const before = order.tasks[n - 1]
        const now = stand.tasks.get(t.id)
        return (
          <StepRow
            key={t.id}
            task={t}
            number={n + 1}
            heading={before?.phase !== t.phase || before.window !== t.window}
            state={now?.state ?? 'waiting'}
            people={now?.at.join(', ') ?? ''}
            minutes={now?.minutes ?? null}
            current={t.id === currentId}
            onChoose={onChoose}
          />
        )
      })}
    </List>
  )
}

interface RowProps {
  task: Task
  number: number
  heading: boolean
  state: TaskStand['state']
  people: string
  minutes: number | null
  current: boolean
  onChoose: (taskId: string) => void
}

/** Drawn anew only when its own step stands otherwise. */
const StepRow = memo(function StepRow({
  task,
  number,
  heading,
  state,
  people,
  minutes,
  current,
  onChoose,
}: RowProps) {
  const { icon: Mark, word } = marks[state]
  return (
    <Box component="li">
      {heading && (
        <ListSubheader component="div" disableSticky sx={{ lineHeight: 2.2, fontWeight: 700 }}>
          {phases[task.phase].name}
          {task.window !== null && ' · power off'}
        </ListSubheader>
      )}
      <ListItem component="div" disablePadding divider>
        <ListItemButton
          selected={current}
          aria-current={current ? 'step' : undefined}
          onClick={() => onChoose(task.id)}
          sx={{
            gap: 1,
            minHeight: 48,
            alignItems: 'flex-start',
            ...(task.window !== null && { borderLeft: 4, borderColor: 'severity.stop' }),
          }}
        >
          <Mark size={20} aria-label={word} style={{ flex: 'none' }} />
          <Box component="span" sx={{ flex: 1, minWidth: 0, overflowWrap: 'anywhere' }}>
            {number}. {task.text}
            {people && <Quiet component="span"> {people}</Quiet>}
          </Box>
          <Quiet component="span" sx={{ whiteSpace: 'nowrap' }}>
            {minutes === null ? `~${minutesText(task.minutes)}` : minutesText(minutes)}
          </Quiet>
        </ListItemButton>
      </ListItem>
    </Box>
  )
})
