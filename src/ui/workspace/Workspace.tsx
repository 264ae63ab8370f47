'use client'
import { Box, ButtonBase, Chip, Typography } from '@mui/material'
import { CircleHelp, Command, Pencil, Redo2, Undo2, Users } from 'lucide-react'
import dynamic from 'next/dynamic'
import { type ReactNode, useEffect, useState } from 'react'
import type { Evaluation } from '@/core/assess/evaluate'
import type { JobRecord } from '@/core/assess/record'
import { quantity } from '@/core/units/format'
import { Quiet } from '../common/pieces'
import { SeverityTag } from '../common/SeverityTag'
import { isLeaving } from '../common/sign-out'
import { Tool } from '../common/Tool'
import { type PersonChoice, TopBar, wide } from '../common/TopBar'
import { Balance, VerdictTag } from './Balance'
import { SaveState } from './SaveState'
import { StepsNav } from './StepsNav'
import { createWorkspace, useWorkspace, useWorkspaceStore, WorkspaceContext } from './store'
import { useKeys } from './useKeys'
import { useLive } from './useLive'
import styles from './Workspace.module.css'

const WorkingDrawer = dynamic(() => import('./WorkingDrawer').then(m => m.WorkingDrawer))
const BalanceSheet = dynamic(() => import('./BalanceSheet').then(m => m.BalanceSheet))
const ConflictDialog = dynamic(() => import('./ConflictDialog').then(m => m.ConflictDialog))
const Notice = dynamic(() => import('./Notice').then(m => m.Notice))
const Shortcuts = dynamic(() => import('../common/Shortcuts').then(m => m.Shortcuts))
const Palette = dynamic(() => import('./Palette').then(m => m.Palette))
const JobFactsDialog = dynamic(() => import('./JobFactsDialog').then(m => m.JobFactsDialog))

interface Props {
  record: JobRecord
  evaluation: Evaluation
  person: PersonChoice
  children: ReactNode
}

/** The job at hand for all that stands in it: its store, what was not saved, and what others write. */
export function WorkspaceRoot({ record, evaluation, person, children }: Props) {
  const [store] = useState(() => createWorkspace({ record, evaluation, person: person.label }))
  useEffect(() => {
    store.setState({ person: person.label })
  }, [store, person.label])
  return (
    <WorkspaceContext value={store}>
      <Guard />
      {children}
    </WorkspaceContext>
  )
}

/** One job, one workspace: the steps on the left, the step at hand, and the balance always in sight. */
export const Workspace = ({ children, ...job }: Props) => (
  <WorkspaceRoot {...job}>
    <Frame person={job.person}>{children}</Frame>
  </WorkspaceRoot>
)

/** Takes up unsaved changes, looks for others' when the tab is looked at again, and warns before unsaved ones are closed. */
function Guard() {
  const store = useWorkspaceStore()
  useEffect(() => {
    void store.getState().start()
    void store.getState().takeUp()
    void store.getState().refresh()
    const look = () => {
      if (document.visibilityState === 'visible') void store.getState().refresh()
    }
    const warn = (event: BeforeUnloadEvent) => {
      if (isLeaving()) return
      if (store.getState().pending.length || store.getState().early) event.preventDefault()
    }
    window.addEventListener('focus', look)
    window.addEventListener('online', look)
    document.addEventListener('visibilitychange', look)
    window.addEventListener('beforeunload', warn)
    return () => {
      window.removeEventListener('focus', look)
      window.removeEventListener('online', look)
      document.removeEventListener('visibilitychange', look)
      window.removeEventListener('beforeunload', warn)
    }
  }, [store])
  useLive()
  return null
}

/** Who else looks at this job just now. */
function AlsoHere() {
  const others = useWorkspace(s => s.others)
  if (!others.length) return null
  return (
    <Chip
      size="small"
      role="status"
      icon={<Users size={14} aria-hidden />}
      label={others.length > 2 ? `${others.length} more here` : `${others.join(', ')} here too`}
      title={`Also here: ${others.join(', ')}`}
      sx={{ maxWidth: { xs: 96, sm: 220 } }}
    />
  )
}

type Overlay = 'shortcuts' | 'palette' | 'facts' | 'balance' | null

function Frame({ person, children }: { person: PersonChoice; children: ReactNode }) {
  const [overlay, setOverlay] = useState<Overlay>(null)
  const title = useWorkspace(s => s.job.title)
  const place = useWorkspace(s => s.job.place)
  const notice = useWorkspace(s => s.notice)
  const conflict = useWorkspace(s => s.conflict !== null)
  const working = useWorkspace(s => s.working !== null)
  useKeys({ onShortcuts: () => setOverlay('shortcuts'), onPalette: () => setOverlay('palette') })
  const close = () => setOverlay(null)
  // tells that the screen answers, where a program drives it
  const live = useWorkspace(s => s.live)
  return (
    <div className={styles.frame} data-live={live || undefined}>
      <TopBar person={person} crowded>
        <Box sx={{ flex: 1, minWidth: 0, pl: 1.25, borderLeft: 1, borderColor: 'divider' }}>
          <Typography noWrap sx={{ fontWeight: 700, lineHeight: 1.25 }}>
            {title}
          </Typography>
          <Quiet noWrap sx={{ lineHeight: 1.25 }}>
            {place}
          </Quiet>
        </Box>
        <Tool
          sx={wide}
          label="Name, place, step and Code edition"
          title="Name, place, step"
          onClick={() => setOverlay('facts')}
          icon={Pencil}
        />
        <AlsoHere />
        <SaveState />
        <UndoRedo />
        <Tool
          sx={wide}
          label="Commands"
          title="Commands (Ctrl K)"
          onClick={() => setOverlay('palette')}
          icon={Command}
        />
        <Tool
          sx={wide}
          label="Shortcuts"
          title="Shortcuts (?)"
          onClick={() => setOverlay('shortcuts')}
          icon={CircleHelp}
        />
      </TopBar>
      <div className={styles.body}>
        <StepsNav />
        <main className={styles.main}>{children}</main>
        <aside className={`${styles.balance} no-print`} aria-label="Balance of the job">
          <Balance />
        </aside>
      </div>
      <BalanceBar onOpen={() => setOverlay('balance')} />
      {overlay === 'balance' && <BalanceSheet onClose={close} />}
      {working && <WorkingDrawer />}
      {conflict && <ConflictDialog />}
      {overlay === 'shortcuts' && <Shortcuts at={['job', 'panel']} onClose={close} />}
      {overlay === 'palette' && <Palette onClose={close} onFacts={() => setOverlay('facts')} />}
      {overlay === 'facts' && <JobFactsDialog onClose={close} />}
      {notice !== null && <Notice />}
    </div>
  )
}

function UndoRedo() {
  const undo = useWorkspace(s => s.undos[0] ?? null)
  const redo = useWorkspace(s => s.redos[0] ?? null)
  const back = useWorkspace(s => s.back)
  return (
    <>
      <Tool
        label={undo === null ? 'Undo: nothing to take back' : `Undo: ${undo}`}
        title={undo === null ? 'Nothing to take back' : `Undo: ${undo}`}
        disabled={undo === null}
        onClick={() => back('undo')}
        icon={Undo2}
      />
      <Tool
        label={redo === null ? 'Redo: nothing to bring back' : `Redo: ${redo}`}
        title={redo === null ? 'Nothing to bring back' : `Redo: ${redo}`}
        disabled={redo === null}
        onClick={() => back('redo')}
        icon={Redo2}
      />
    </>
  )
}

/** On a phone: the two figures that matter and the worst finding, one tap from the whole balance. */
function BalanceBar({ onOpen }: { onOpen: () => void }) {
  const headline = useWorkspace(s => s.evaluation.headline)
  const hours = useWorkspace(s => s.evaluation.balance.find(l => l.id === 'hours'))
  if (!hours) return null
  return (
    <ButtonBase className={`${styles.bar} no-print`} onClick={onOpen} aria-haspopup="dialog">
      <span>
        <b>{hours.have === null ? '–' : quantity(hours.have, 'h')}</b> of{' '}
        {quantity(headline.hoursNeeded, 'h')}
      </span>
      <VerdictTag verdict={hours.verdict} />
      <Box component="span" sx={{ ml: 'auto' }}>
        {headline.worst && (
          <SeverityTag severity={headline.worst.severity} count={headline.counts[headline.worst.severity]} />
        )}
      </Box>
      <Box component="span" sx={{ color: 'primary.main', textDecoration: 'underline' }}>
        Balance
      </Box>
    </ButtonBase>
  )
}
