'use client'
import { Box, Button, Drawer, IconButton, Typography } from '@mui/material'
import { ChevronLeft, ChevronRight, Grid3x3, ListOrdered, Monitor } from 'lucide-react'
import dynamic from 'next/dynamic'
import Link from 'next/link'
import { memo, useCallback, useDeferredValue, useEffect, useState } from 'react'
import type { Evaluation } from '@/core/assess/evaluate'
import type { JobRecord } from '@/core/assess/record'
import { isSettled, standText } from '@/core/commission/stand'
import { Fold } from '../common/Fold'
import { Level } from '../common/Level'
import { Column, Empty, Quiet } from '../common/pieces'
import { ThumbBar } from '../common/ThumbBar'
import { Tool } from '../common/Tool'
import { type PersonChoice, TopBar } from '../common/TopBar'
import { Connection, useOffline } from '../trace/useOffline'
import { SaveState } from '../workspace/SaveState'
import { useWorkspace } from '../workspace/store'
import { WorkspaceRoot } from '../workspace/Workspace'
import { TestCard } from './TestCard'
import { TestIndex } from './TestIndex'
import { useBench } from './useBench'
import { type Tests, useChosen, useTests } from './useTests'

const ConflictDialog = dynamic(() => import('../workspace/ConflictDialog').then(m => m.ConflictDialog))
const Notice = dynamic(() => import('../workspace/Notice').then(m => m.Notice))
const WorkingDrawer = dynamic(() => import('../workspace/WorkingDrawer').then(m => m.WorkingDrawer))
const Inspection = dynamic(() => import('./Inspection').then(m => m.Inspection))
const Matrix = dynamic(() => import('./Matrix').then(m => m.Matrix))
// what is beside the test comes behind it
const StandIn = dynamic(() => import('./StandIn').then(m => m.StandIn), { ssr: false })

interface Props {
  record: JobRecord
  evaluation: Evaluation
  person: PersonChoice
}

/** What is proven, where it is proven: one test at a time, for one thumb, whole without a connection. */
export const TestsScreen = (job: Props) => (
  <WorkspaceRoot {...job}>
    <Proving person={job.person} />
  </WorkspaceRoot>
)

const lastKey = (jobId: string) => `spillway.test.${jobId}`

function Proving({ person }: { person: PersonChoice }) {
  const id = useWorkspace(s => s.id)
  const live = useWorkspace(s => s.live)
  const notice = useWorkspace(s => s.notice)
  const conflict = useWorkspace(s => s.conflict !== null)
  const working = useWorkspace(s => s.working !== null)
  const { online, kept, photos, send } = useOffline()
  const tests = useTests()
  // what a reading means is drawn first, what follows from it behind it
  const settled = useDeferredValue(tests)
  const { list, stand } = settled
  const bench = useBench()
  const { test, number, choose } = useChosen(tests)
  const [open, setOpen] = useState<Opened | null>(null)
  useEffect(() => {
    const named = decodeURIComponent(location.hash.slice(1)) || localStorage.getItem(lastKey(id))
    if (named) choose(named)
  }, [id, choose])
  const show = useCallback(
    (testId: string | undefined) => {
      setOpen(null)
      if (testId === undefined) return
      choose(testId)
      localStorage.setItem(lastKey(id), testId)
      scrollTo({ top: 0 })
    },
    [id, choose],
  )
  return (
    <div data-live={live || undefined}>
      <Head person={person} onOpen={setOpen} />
      <Box
        component="main"
        sx={{
          maxWidth: 760,
          mx: 'auto',
          px: { xs: 1, sm: 2 },
          pt: { xs: 1, sm: 2 },
          pb: 12,
          '& :is(a, button, input, textarea)': { scrollMargin: '72px 0 96px' },
        }}
      >
        <Column>
          <Connection online={online} kept={kept} photos={photos} />
          <Standing stand={stand} />
          {test ? (
            <TestCard
              key={test.id}
              test={test}
              tests={tests}
              bench={bench}
              number={number + 1}
              onPhoto={send}
            />
          ) : (
            <Empty>
              <p>Nothing can be proven yet: choose a source and a hook-up, and pick what must live.</p>
            </Empty>
          )}
          {test && <StandIn list={list} />}
          <Authority stand={stand} onPhoto={send} />
        </Column>
      </Box>
      <Ways tests={settled} number={number} onShow={show} />
      <Drawer
        anchor="bottom"
        open={open !== null}
        onClose={() => setOpen(null)}
        slotProps={{
          paper: {
            sx: { maxHeight: '85vh' },
            'aria-label': open === 'matrix' ? 'Circuits by supply' : 'All tests',
          },
        }}
      >
        {open === 'list' && (
          <TestIndex
            tests={settled}
            currentId={test?.id ?? null}
            onChoose={show}
            onMatrix={() => setOpen('matrix')}
          />
        )}
        {open === 'matrix' && (
          <Box sx={{ p: 1 }}>
            <Matrix tests={settled} bench={bench} currentId={test?.id ?? null} onChoose={show} />
          </Box>
        )}
      </Drawer>
      {working && <WorkingDrawer />}
      {conflict && <ConflictDialog />}
      {notice !== null && <Notice />}
    </div>
  )
}

type Opened = 'list' | 'matrix'

const Head = memo(function Head({
  person,
  onOpen,
}: {
  person: PersonChoice
  onOpen: (what: Opened) => void
}) {
  const id = useWorkspace(s => s.id)
  const title = useWorkspace(s => s.job.title)
  return (
    <TopBar person={person} crowded>
      <Box sx={{ flex: 1, minWidth: 0 }}>
        <Typography noWrap component="h1" sx={{ fontWeight: 700, fontSize: 'inherit' }}>
          {title}
        </Typography>
        <SaveState />
      </Box>
      <IconButton aria-label="Tests at the desk" component={Link} href={`/jobs/${id}/tests`}>
        <Monitor size={18} aria-hidden />
      </IconButton>
      <Tool label="Circuits by supply" icon={Grid3x3} onClick={() => onOpen('matrix')} />
      <Tool label="All tests" icon={ListOrdered} onClick={() => onOpen('list')} />
    </TopBar>
  )
})

const Standing = memo(function Standing({ stand }: Pick<Tests, 'stand'>) {
  return (
    <Box>
      {stand.count > 0 && <Level full={stand.passed / stand.count} />}
      <Quiet role="status">{standText(stand)}</Quiet>
    </Box>
  )
})

const Authority = memo(function Authority(
  inspected: Pick<Tests, 'stand'> & { onPhoto: () => Promise<void> },
) {
  return <Fold title="Inspection by the authority">{() => <Inspection {...inspected} />}</Fold>
})

interface WaysProps {
  tests: Tests
  /** of the test on the screen, from 0 */
  number: number
  onShow: (testId: string | undefined) => void
}

/** Where to go from a test: back, or to the next that is open; after the last of them, to the first that was left. */
const Ways = memo(function Ways({ tests: { list, stand }, number, onShow }: WaysProps) {
  const test = list.tests[number]
  const waiting = list.tests.filter(
    t => t !== test && !t.optional && !isSettled(stand.tests.get(t.id) ?? { state: 'open' }),
  )
  const next = waiting.find(t => list.tests.indexOf(t) > number) ?? waiting[0]
  return (
    <ThumbBar label="Test by test">
      <Button
        variant="outlined"
        startIcon={<ChevronLeft size={22} aria-hidden />}
        disabled={number === 0}
        onClick={() => onShow(list.tests[number - 1]?.id)}
      >
        Back
      </Button>
      <Button
        variant={test && stand.tests.get(test.id)?.state === 'passed' ? 'contained' : 'outlined'}
        endIcon={<ChevronRight size={22} aria-hidden />}
        disabled={!next}
        onClick={() => onShow(next?.id)}
      >
        Next open
      </Button>
    </ThumbBar>
  )
})
