'use client'
import { Alert, Box, Button, Chip } from '@mui/material'
import { FileUp, Printer, Smartphone } from 'lucide-react'
import dynamic from 'next/dynamic'
import Link from 'next/link'
import { useEffect } from 'react'
import { notBuilt } from '@/core/commission'
import { judgedEntry } from '@/core/commission/judge'
import { standText } from '@/core/commission/stand'
import { groups } from '@/core/commission/tests'
import { plural, together } from '@/core/units/format'
import { faultLine } from '../api'
import { FileButton } from '../common/FileButton'
import { Fold } from '../common/Fold'
import { Level } from '../common/Level'
import { Card, Column, Empty, Quiet, Row, View } from '../common/pieces'
import { useOffline } from '../trace/useOffline'
import { useWorkspace } from '../workspace/store'
import { Matrix } from './Matrix'
import { TestCard } from './TestCard'
import { TestIndex } from './TestIndex'
import { useBench } from './useBench'
import { type Tests, useChosen, useRecordTests, useTests } from './useTests'

// what stands beside and below the tests comes behind them
const TakeOver = dynamic(() => import('./TakeOver').then(m => m.TakeOver), { ssr: false })
const StandIn = dynamic(() => import('./StandIn').then(m => m.StandIn), { ssr: false })
const Inspection = dynamic(() => import('./Inspection').then(m => m.Inspection), { ssr: false })
const AgeingCard = dynamic(() => import('./AgeingCard').then(m => m.AgeingCard), { ssr: false })

/** What has to be proven, at a desk: how it stands, every test, the grid of circuits, what differs from the design, capacity, inspection. */
export function TestsView() {
  const id = useWorkspace(s => s.id)
  const job = useWorkspace(s => s.job)
  const tests = useTests()
  const { list, stand } = tests
  const bench = useBench()
  const { send } = useOffline()
  const { test, number, choose } = useChosen(tests)
  useEffect(() => {
    // a link leads to a test
    const named = decodeURIComponent(location.hash.slice(1))
    if (named) choose(named)
  }, [choose])
  if (!list.tests.length)
    return (
      <View title="Tests">
        <Empty>
          {list.open.map(o => (
            <p key={o}>{o}</p>
          ))}
          <p>Nothing can be proven yet: choose a source and a hook-up, and pick what must live.</p>
        </Empty>
      </View>
    )
  const show = (testId: string) => {
    choose(testId)
    document.getElementById('test-at-hand')?.scrollIntoView({ block: 'nearest' })
  }
  const unbuilt = notBuilt(job)
  return (
    <View
      title="Tests"
      lead={standText(stand)}
      tools={
        <Row>
          <Button
            size="small"
            variant="contained"
            startIcon={<Smartphone size={16} aria-hidden />}
            component={Link}
            href={`/jobs/${id}/prove`}
          >
            On the phone
          </Button>
          <Button
            size="small"
            startIcon={<Printer size={16} aria-hidden />}
            component={Link}
            href={`/jobs/${id}/record`}
          >
            Record
          </Button>
          <FromFile tests={tests} />
        </Row>
      }
    >
      {unbuilt.length > 0 && (
        <Alert
          severity="warning"
          action={
            <Button color="inherit" size="small" component={Link} href={`/jobs/${id}/work`}>
              Work order
            </Button>
          }
        >
          <b>{plural(unbuilt.length, 'planned change is', 'planned changes are')} not built yet:</b> what is
          read meanwhile is of a house that is not finished.
        </Alert>
      )}
      <Standing tests={tests} />
      <TakeOver />
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { lg: 'minmax(280px, 2fr) minmax(0, 3fr)' },
          gap: 2,
          alignItems: 'start',
        }}
      >
        <Card title="Every test">
          <Box sx={{ maxHeight: { lg: 'calc(100vh - 180px)' }, overflowY: 'auto' }}>
            <TestIndex
              tests={tests}
              currentId={test?.id ?? null}
              onChoose={show}
              onMatrix={() => document.getElementById('matrix')?.scrollIntoView()}
            />
          </Box>
        </Card>
        <Column id="test-at-hand">
          {test && (
            <Card title={groups[test.group].name}>
              <TestCard
                key={test.id}
                test={test}
                tests={tests}
                bench={bench}
                number={number + 1}
                onPhoto={send}
              />
            </Card>
          )}
          <StandIn list={list} />
        </Column>
      </Box>
      {list.matrix.length > 0 && (
        <Card title="Circuit by circuit, supply by supply" id="matrix">
          <Matrix tests={tests} bench={bench} currentId={test?.id ?? null} onChoose={show} />
        </Card>
      )}
      {list.tests
        .filter(t => t.group === 'capacity' && stand.tests.get(t.id)?.read)
        .map(t => (
          <AgeingCard key={t.id} test={t} />
        ))}
      <Inspection stand={stand} onPhoto={send} />
      {list.open.length > 0 && (
        <Fold title={`Cannot be proven, or not here (${list.open.length})`}>
          {() => (
            <ul>
              {list.open.map(o => (
                <li key={o}>{o}</li>
              ))}
            </ul>
          )}
        </Fold>
      )}
    </View>
  )
}

/** How far it is, group by group, and what no longer fits. */
function Standing({ tests: { list, stand } }: { tests: Tests }) {
  return (
    <Card title="How it stands">
      <Level full={stand.count ? stand.passed / stand.count : 0} />
      <Row>
        {stand.groups.map(g => (
          <Chip
            key={g.group}
            size="small"
            color={g.failed ? 'error' : g.passed === g.count ? 'primary' : 'default'}
            variant={g.failed || g.passed === g.count ? 'filled' : 'outlined'}
            label={`${groups[g.group].name}: ${g.passed} of ${g.count}${g.failed ? `, ${g.failed} failed` : ''}`}
          />
        ))}
      </Row>
      {stand.failed.length > 0 && (
        <Alert severity="error">
          <b>Failed:</b> {together(stand.failed.map(t => t.text))}.
        </Alert>
      )}
      {stand.again.length > 0 && (
        <Alert severity="warning">
          <b>To be read again:</b> {together(stand.again.map(t => t.text))}.
        </Alert>
      )}
      {stand.gone.length > 0 && (
        <Quiet>
          Read, and no longer in the list since the plan changed:{' '}
          {together(stand.gone.map(g => `${g.text} (${g.by}, ${g.on})`))}.
        </Quiet>
      )}
      {stand.inspection.result && (
        <p>
          Inspection: <b>{stand.inspection.passed ? 'passed' : 'to be corrected'}</b>,{' '}
          {stand.inspection.result.on}
        </p>
      )}
      {list.tests.length > 0 && stand.passed === stand.count && stand.simulated === 0 && (
        <Quiet>All of it passed. Local code, the authority and licensed practice decide.</Quiet>
      )}
    </Card>
  )
}

const largestTable = 2_000_000

/** Readings out of a table: every line judged as if it were typed. */
function FromFile({ tests: { list } }: { tests: Tests }) {
  const record = useRecordTests()
  const say = useWorkspace(s => s.say)
  const take = async (file: File) => {
    if (file.size > largestTable)
      return say(`${file.name} is too large for a table of readings: ${largestTable / 1e6} MB at most.`)
    const { readingsIn } = await import('@/core/commission/file')
    const read = readingsIn(await file.text(), list.tests)
    if (!read.ok) return say(`${file.name}: ${read.faults.slice(0, 4).map(faultLine).join('; ')}`)
    const faults = record(
      read.value.map(({ test, readings, ran }) => ({ test, facts: judgedEntry(test, readings, ran) })),
      file.name,
    )
    say(
      faults.length
        ? faults.map(faultLine).join('; ')
        : `${file.name}: ${plural(read.value.length, 'test')} read.`,
    )
  }
  return (
    <FileButton
      what="A table of readings"
      accept=".csv,.txt,text/csv"
      size="small"
      startIcon={<FileUp size={16} aria-hidden />}
      onFiles={([file]) => (file ? take(file) : undefined)}
    >
      From a file
    </FileButton>
  )
}
