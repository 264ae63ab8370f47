'use client'
import { Alert, Box, Button, Link as MuiLink } from '@mui/material'
import { ArrowDown, ArrowUp, ClipboardPen, Printer, Smartphone, Tag } from 'lucide-react'
import dynamic from 'next/dynamic'
import Link from 'next/link'
import { useEffect, useState } from 'react'
import type { Task, WorkOrder } from '@/core/order/task'
import { offText } from '@/core/order/words'
import { aboutText, plural, together } from '@/core/units/format'
import type { Minutes } from '@/core/work/parts/tasks'
import { Fold } from '../common/Fold'
import { Level } from '../common/Level'
import { Card, Column, Empty, Quiet, Row, Terms, View } from '../common/pieces'
import { Thumbnails } from '../common/Thumbnails'
import { Tool } from '../common/Tool'
import { useOffline } from '../trace/useOffline'
import { useWorkspace } from '../workspace/store'
import { Merged } from './Merged'
import { StepCard } from './StepCard'
import { StepList } from './StepList'
import { useStep } from './useStep'
import { MinutesContext, useCurrent, useWork, type Work } from './useWork'

const FromPaper = dynamic(() => import('./FromPaper').then(m => m.FromPaper))

/** The order of work at a desk: what goes dark and for how long, how far it is, who is where, and every step. */
export function WorkView({ minutes }: { minutes: Minutes }) {
  return (
    <MinutesContext value={minutes}>
      <Desk />
    </MinutesContext>
  )
}

function Desk() {
  const id = useWorkspace(s => s.id)
  const work = useWork()
  const { order, stand } = work
  const { send } = useOffline()
  const connected = useWorkspace(s => s.heard)
  const [paper, setPaper] = useState(false)
  const { task, number, choose } = useCurrent(work)
  const step = useStep(task, work, () => choose(order.tasks[number + 1]?.id ?? null))
  useEffect(() => {
    // a link leads to a step
    const named = decodeURIComponent(location.hash.slice(1))
    if (named) choose(named)
  }, [choose])
  if (!order.tasks.length)
    return (
      <View title="Work order">
        <Empty>
          <p>Nothing is planned to be done to this house yet.</p>
          <MuiLink component={Link} href={`/jobs/${id}/hook-up`}>
            Choose a hook-up
          </MuiLink>
        </Empty>
      </View>
    )
  return (
    <View
      title="Work order"
      lead={offText(order)}
      tools={
        <Row>
          <Button
            size="small"
            variant="contained"
            startIcon={<Smartphone size={16} aria-hidden />}
            component={Link}
            href={`/jobs/${id}/field`}
          >
            Step by step
          </Button>
          <Button
            size="small"
            startIcon={<Printer size={16} aria-hidden />}
            component={Link}
            href={`/jobs/${id}/booklet`}
          >
            Booklet
          </Button>
          <Button
            size="small"
            startIcon={<ClipboardPen size={16} aria-hidden />}
            onClick={() => setPaper(true)}
          >
            From paper
          </Button>
          <Button
            size="small"
            startIcon={<Tag size={16} aria-hidden />}
            component={Link}
            href={`/jobs/${id}/notices`}
          >
            Labels and notices
          </Button>
        </Row>
      }
    >
      <Stops />
      {paper && <FromPaper work={work} onClose={() => setPaper(false)} />}
      <Merged stand={stand} />
      <Progress work={work} connected={connected} />
      <Windows order={order} off={stand.off} />
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { lg: 'minmax(280px, 2fr) minmax(0, 3fr)' },
          gap: 2,
          alignItems: 'start',
        }}
      >
        <Card title="Steps" tools={task && <Moving work={work} task={task} number={number} />}>
          <StepList work={work} currentId={task?.id ?? null} onChoose={choose} />
        </Card>
        {task && (
          <Card title={`Step ${number + 1}`}>
            <StepCard key={task.id} task={task} work={work} number={number + 1} step={step} onPhoto={send} />
          </Card>
        )}
      </Box>
      {order.open.length > 0 && (
        <Fold title={`To be decided or looked at (${order.open.length})`}>
          {() => (
            <ul>
              {order.open.map(o => (
                <li key={o}>{o}</li>
              ))}
            </ul>
          )}
        </Fold>
      )}
    </View>
  )
}

/** What is wrong with the design is mended before anything is opened. */
function Stops() {
  const id = useWorkspace(s => s.id)
  const stops = useWorkspace(s => s.evaluation.findings).filter(f => f.severity === 'stop')
  if (!stops.length) return null
  return (
    <Alert
      severity="error"
      action={
        <Button color="inherit" size="small" component={Link} href={`/jobs/${id}/findings`}>
          Findings
        </Button>
      }
    >
      <b>
        {stops.length === 1 ? 'A stop stands' : `${stops.length} stops stand`} against this design: mended
        before anything is opened.
      </b>{' '}
      {stops.map(f => f.sentence).join(' ')}
    </Alert>
  )
}

function Progress({ work: { order, stand }, connected }: { work: Work; connected: boolean }) {
  const photos = useWorkspace(s => s.job.photos)
  const taken = photos.filter(p => p.about.kind === 'task').slice(-12)
  const name = (taskId: string) => order.tasks.find(t => t.id === taskId)?.text ?? taskId
  const next = order.tasks.find(t => t.id === stand.next)
  const held = order.tasks.filter(t => stand.tasks.get(t.id)?.state === 'held')
  const holds = order.tasks.flatMap(t => (stand.tasks.get(t.id)?.holds ?? []).map(h => ({ t, h })))
  const skipped = holds.flatMap(({ t, h }) => (h.skipped ? [{ t, h: h.skipped }] : []))
  const simulated = holds.filter(({ h }) => h.evidence?.simulated)
  return (
    <Card
      title="How far it is"
      tools={
        <Quiet component="span">{connected ? 'as it comes' : 'no live connection: shown as last told'}</Quiet>
      }
    >
      <Level full={order.tasks.length ? stand.done / order.tasks.length : 0} />
      <p>
        <b>
          {stand.done} of {order.tasks.length} steps
        </b>
        {stand.leftMinutes > 0 && `, about ${aboutText(stand.leftMinutes)} of work left`}
        {next && `; next: ${next.text}`}
      </p>
      {stand.off.length > 0 && (
        <Alert severity="warning" icon={false}>
          <b>Power is off now:</b>{' '}
          {together(order.windows.filter(w => stand.off.includes(w.id)).map(w => w.name))}.
        </Alert>
      )}
      {stand.people.map(p => (
        <p key={`${p.by} ${p.task}`}>
          <b>{p.by}</b> is at: {name(p.task)}
        </p>
      ))}
      {simulated.length > 0 && (
        <Alert severity="warning" icon={false}>
          <b>{plural(simulated.length, 'hold point')} with readings of the simulated meter:</b> they prove
          nothing in a house ({[...new Set(simulated.map(({ t }) => t.text))].join('; ')}).
        </Alert>
      )}
      {held.length > 0 && <p>Waits for its hold points: {together(held.map(t => t.text))}.</p>}
      {skipped.map(({ t, h }) => (
        <Quiet key={`${t.id} ${h.why}`}>
          {h.by} went on without a hold point of “{t.text}”: {h.why}
        </Quiet>
      ))}
      <Thumbnails photos={taken} />
    </Card>
  )
}

/** Names of circuits; those that nobody labelled are counted. */
function darkText(names: readonly string[]): string {
  const labelled = names.filter(n => !n.endsWith('unlabelled'))
  const bare = names.length - labelled.length
  return together([...labelled, ...(bare ? [`${bare} unlabelled`] : [])])
}

function Windows({ order, off }: { order: WorkOrder; off: readonly string[] }) {
  return order.windows.map(w => (
    <Fold
      key={w.id}
      title={
        <span>
          <b>Power off{off.includes(w.id) ? ' now' : ''}:</b> {together(w.opened.map(o => o.name))}, about{' '}
          {aboutText(w.minutes)}, {plural(w.dark.length, 'circuit')} dark
        </span>
      }
    >
      {() => (
        <Terms
          width={150}
          rows={[
            ['Dark meanwhile', darkText(w.dark.map(d => d.name))],
            ['Opened and locked', together(w.opened.map(o => `${o.name}: ${o.setting}, ${o.lock}`))],
            ['Nobody closes', together(w.keptOpen.map(k => `${k.name}: ${k.setting}`)) || 'nothing else'],
            ['Stays live', together(w.staysLive.map(p => p.name)) || 'nothing in what is opened'],
          ]}
        />
      )}
    </Fold>
  ))
}

/** Earlier or later by hand, as far as what it rests on lets it. */
function Moving({ work: { order }, task, number }: { work: Work; task: Task; number: number }) {
  const act = useWorkspace(s => s.act)
  const byHand = useWorkspace(s => s.job.work?.order !== undefined)
  const say = useWorkspace(s => s.say)
  const swap = (by: 1 | -1) => {
    const other = order.tasks[number + by]
    if (!other) return
    const [first, second] = by < 0 ? [other, task] : [task, other]
    if (second.restsOn.includes(first.id))
      return say(`Not allowed: “${second.text}” rests on “${first.text}”.`)
    const ids = order.tasks.map(t => t.id)
    ids[number] = other.id
    ids[number + by] = task.id
    act({ op: 'orderWork', order: ids })
  }
  return (
    <Column sx={{ flexDirection: 'row' }}>
      <Tool label="Earlier" icon={ArrowUp} onClick={() => swap(-1)} />
      <Tool label="Later" icon={ArrowDown} onClick={() => swap(1)} />
      {byHand && (
        <Button size="small" onClick={() => act({ op: 'orderWork', order: [] })}>
          As computed
        </Button>
      )}
    </Column>
  )
}
