'use client'
import { Box, Button, Drawer, IconButton, type Theme, Typography, useMediaQuery } from '@mui/material'
import { Check, ChevronLeft, ChevronRight, ListOrdered, Monitor } from 'lucide-react'
import dynamic from 'next/dynamic'
import Link from 'next/link'
import { useCallback, useEffect, useState } from 'react'
import type { Evaluation } from '@/core/assess/evaluate'
import type { JobRecord } from '@/core/assess/record'
import type { Task } from '@/core/order/task'
import type { Minutes } from '@/core/work/parts/tasks'
import { Empty } from '../common/pieces'
import { ThumbBar } from '../common/ThumbBar'
import { Tool } from '../common/Tool'
import { type PersonChoice, TopBar } from '../common/TopBar'
import { Connection, useOffline } from '../trace/useOffline'
import { SaveState } from '../workspace/SaveState'
import { useWorkspace } from '../workspace/store'
import { WorkspaceRoot } from '../workspace/Workspace'
import { Merged } from './Merged'
import { StepCard } from './StepCard'
import { StepList } from './StepList'
import { useStep } from './useStep'
import { MinutesContext, useCurrent, useWork, type Work } from './useWork'

const ConflictDialog = dynamic(() => import('../workspace/ConflictDialog').then(m => m.ConflictDialog))
const Notice = dynamic(() => import('../workspace/Notice').then(m => m.Notice))

interface Props {
  record: JobRecord
  evaluation: Evaluation
  person: PersonChoice
  minutes: Minutes
}

/** The work where it is done: one step at a time, for one thumb and gloves, whole without a connection. */
export const FieldScreen = ({ minutes, ...job }: Props) => (
  <WorkspaceRoot {...job}>
    <MinutesContext value={minutes}>
      <Field person={job.person} />
    </MinutesContext>
  </WorkspaceRoot>
)

/** The next step that is not done; after the last of them, the first that was left. */
const following = ({ order: { tasks }, stand }: Work, number: number): Task | undefined => {
  const open = tasks.filter((t, n) => n !== number && stand.tasks.get(t.id)?.state !== 'done')
  return open.find(t => tasks.indexOf(t) > number) ?? open[0] ?? tasks[number + 1]
}

const lastKey = (jobId: string) => `spillway.step.${jobId}`

function Field({ person }: { person: PersonChoice }) {
  const id = useWorkspace(s => s.id)
  const title = useWorkspace(s => s.job.title)
  const live = useWorkspace(s => s.live)
  const notice = useWorkspace(s => s.notice)
  const conflict = useWorkspace(s => s.conflict !== null)
  const { online, kept, photos, send } = useOffline()
  const work = useWork()
  const { order, stand } = work
  const [listed, setListed] = useState(false)
  const { task, number, choose } = useCurrent(work)
  useEffect(() => choose(localStorage.getItem(lastKey(id))), [id, choose])
  const show = useCallback(
    (taskId: string | undefined) => {
      setListed(false)
      if (taskId === undefined) return
      choose(taskId)
      localStorage.setItem(lastKey(id), taskId)
      scrollTo({ top: 0 })
    },
    [id, choose],
  )
  // on a phone the list is made when it is asked for
  const beside = useMediaQuery((theme: Theme) => theme.breakpoints.up('md'))
  const step = useStep(task, work, () => show(following(work, number)?.id))
  const list = <StepList work={work} currentId={task?.id ?? null} onChoose={show} />
  return (
    <div data-live={live || undefined}>
      <TopBar person={person} crowded>
        <Box sx={{ flex: 1, minWidth: 0 }}>
          <Typography noWrap component="h1" sx={{ fontWeight: 700, fontSize: 'inherit' }}>
            {title}
          </Typography>
          <SaveState />
        </Box>
        <IconButton aria-label="Work order and balance of the job" component={Link} href={`/jobs/${id}/work`}>
          <Monitor size={18} aria-hidden />
        </IconButton>
        <Tool
          label="All steps"
          icon={ListOrdered}
          onClick={() => setListed(true)}
          sx={{ display: { md: 'none' } }}
        />
      </TopBar>
      <Box
        component="main"
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: '340px minmax(0, 760px)' },
          gap: 2,
          px: { xs: 1, sm: 2 },
          pt: { xs: 1, sm: 2 },
          // what has the focus is not hidden behind the bars
          pb: 12,
          '& :is(a, button, input, textarea)': { scrollMargin: '72px 0 96px' },
        }}
      >
        {beside && <Box>{list}</Box>}
        <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1.5, minWidth: 0 }}>
          <Connection online={online} kept={kept} photos={photos} />
          <Merged stand={stand} />
          {task ? (
            <StepCard
              key={task.id}
              task={task}
              work={work}
              number={number + 1}
              step={step}
              onPhoto={send}
              barred
            />
          ) : (
            <Empty>
              <p>Nothing is planned to be done to this house yet: choose a hook-up, or plan a change.</p>
            </Empty>
          )}
        </Box>
      </Box>
      <ThumbBar label="Step by step">
        <Button
          variant="outlined"
          startIcon={<ChevronLeft size={22} aria-hidden />}
          disabled={number === 0}
          onClick={() => show(order.tasks[number - 1]?.id)}
        >
          Back
        </Button>
        {step.done ? (
          <Button variant="contained" disabled={!stand.next} onClick={() => show(stand.next ?? undefined)}>
            To step {order.tasks.findIndex(t => t.id === stand.next) + 1 || order.tasks.length}
          </Button>
        ) : (
          <Button
            variant="contained"
            startIcon={<Check size={22} aria-hidden />}
            onClick={step.tick}
            disabled={!task}
          >
            Done
          </Button>
        )}
        <Button
          variant="outlined"
          endIcon={<ChevronRight size={22} aria-hidden />}
          disabled={number >= order.tasks.length - 1}
          onClick={() => show(order.tasks[number + 1]?.id)}
        >
          Next
        </Button>
      </ThumbBar>
      <Drawer
        anchor="bottom"
        open={listed}
        onClose={() => setListed(false)}
        slotProps={{ paper: { sx: { maxHeight: '85vh' }, 'aria-label': 'All steps' } }}
      >
        {listed && list}
      </Drawer>
      {conflict && <ConflictDialog />}
      {notice !== null && <Notice />}
    </div>
  )
}
