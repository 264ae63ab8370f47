import { Alert, Box, Button, Chip, Typography } from '@mui/material'
import { Camera, Check, CircleSlash, RotateCcw, TriangleAlert, Wrench } from 'lucide-react'
import dynamic from 'next/dynamic'
import { memo, useDeferredValue, useState } from 'react'
import { inEdition } from '@/core/articles'
import { causesBy, readingText, type Verdict } from '@/core/commission/judge'
import type { TestStand } from '@/core/commission/stand'
import { groups, instruments, type Test } from '@/core/commission/tests'
import type { TestEntry } from '@/core/job/test-log'
import { fail, fault, ok } from '@/core/outcome'
import { together } from '@/core/units/format'
import { FileButton, pictures } from '../common/FileButton'
import { Fold } from '../common/Fold'
import { Column, Columns, Quiet, Row } from '../common/pieces'
import { Thumbnails } from '../common/Thumbnails'
import { takePhoto } from '../field/photographs'
import { Form, OtherFaults } from '../form/Form'
import { LineField } from '../form/inputs'
import { useSheet } from '../form/useSheet'
import { text } from '../theme/tokens'
import { useWorkspace } from '../workspace/store'
import { TestForm } from './TestForm'
import type { Bench } from './useBench'
import { useRest } from './useRest'
import { type Tests, useRecordTest } from './useTests'

const TakeOver = dynamic(() => import('./TakeOver').then(m => m.TakeOver))

interface Props {
  test: Test
  tests: Tests
  bench: Bench | null
  number: number
  onPhoto: () => Promise<void>
}

/** One test: how the house stands for it, where the probes go, what is read, what it means, and what to look for when it fails. */
export function TestCard({ test, tests, bench, number, onPhoto }: Props) {
  const now = tests.stand.tests.get(test.id)
  // what a reading means is drawn first, what follows from it behind it
  const settled = useDeferredValue(tests)
  const before = settled.stand.tests.get(test.id)
  const [again, setAgain] = useState(false)
  if (!now || !before) return null
  return (
    <Column
      component="article"
      aria-label={`Test ${number}: ${test.text}`}
      sx={{ '& .MuiButton-root': { minHeight: 44 } }}
    >
      <Head test={test} number={number} of={tests.list.tests.length} stand={before} again={again} />
      {counts(now) && now.verdict && now.read && <Said test={test} stand={now} verdict={now.verdict} />}
      <Reading test={test} tests={settled} bench={bench} again={again} onAgain={setAgain} />
      <More test={test} onPhoto={onPhoto} />
      {before.history.length > 0 && <History test={test} history={before.history} />}
    </Column>
  )
}

const counts = ({ state }: TestStand) => state === 'passed' || state === 'doubtful' || state === 'failed'

interface HeadProps {
  test: Test
  number: number
  of: number
  stand: TestStand
  again: boolean
}

const Head = memo(function Head({ test, number, of, stand, again }: HeadProps) {
  return (
    <>
      <Box>
        <Quiet>
          Test {number} of {of} · {groups[test.group].name}, {groups[test.group].about}
          {test.optional && ' · where the instrument is at hand'}
        </Quiet>
        <Typography
          component="h2"
          sx={{ fontSize: text.title, fontWeight: 800, lineHeight: 1.2, overflowWrap: 'anywhere' }}
        >
          {test.text}
        </Typography>
      </Box>
      {stand.stale && (
        <Alert severity="warning" icon={<RotateCcw size={20} aria-hidden />}>
          {stand.stale}
        </Alert>
      )}
      {stand.leftOut && (
        <Alert severity="warning" icon={<CircleSlash size={20} aria-hidden />}>
          Left out by {stand.leftOut.by}: {stand.leftOut.why}
        </Alert>
      )}
      {stand.first.length > 0 && (!counts(stand) || again) && (
        <Alert severity="warning" icon={false}>
          Better first: {together(stand.first.map(t => t.text))}.
        </Alert>
      )}
    </>
  )
})

interface ReadingProps {
  test: Test
  tests: Tests
  bench: Bench | null
  again: boolean
  onAgain: (again: boolean) => void
}

/** What to do at it: the readings; once they are read, what can be wrong. */
const Reading = memo(function Reading({ test, tests: { stand }, bench, again, onAgain }: ReadingProps) {
  const photos = useWorkspace(s => s.job.photos)
  const now = stand.tests.get(test.id)
  if (!now) return null
  const asks = !counts(now) || again
  return (
    <>
      {(now.state === 'failed' || now.state === 'doubtful') && (
        <>
          <TakeOver testId={test.id} />
          {now.state === 'failed' && (
            <Causes
              key={now.history.length}
              test={test}
              causes={now.verdict ? causesBy(test, now.verdict) : test.causes}
              simulated={bench !== null}
            />
          )}
        </>
      )}
      {!asks && (
        <Button variant="outlined" onClick={() => onAgain(true)} sx={{ alignSelf: 'start' }}>
          Read it again
        </Button>
      )}
      {asks && (
        <>
          <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
            {test.setUp.says.map(s => (
              <li key={s}>
                <b>{s}</b>
              </li>
            ))}
            {test.lines.map(l => (
              <li key={l}>{l}</li>
            ))}
          </Box>
          {test.restMin > 0 && <Rest test={test} stands={stand.tests} />}
          <TestForm
            key={`${test.id} ${now.history.length}`}
            test={test}
            bench={bench}
            onWritten={() => onAgain(false)}
          />
        </>
      )}
      <Thumbnails photos={photos.filter(p => p.about.kind === 'task' && p.about.task === test.id)} />
    </>
  )
})

const History = memo(function History({ test, history }: { test: Test; history: readonly TestEntry[] }) {
  return (
    <Fold title={`Everything written down of it (${history.length})`}>
      {() => (
        <Box component="ol" sx={{ m: 0, pl: 2.5 }}>
          {history.map(e => (
            <li key={e.id}>
              <HistoryLine test={test} entry={e} />
            </li>
          ))}
        </Box>
      )}
    </Fold>
  )
})

const looks = {
  passed: { severity: 'success', icon: Check },
  doubtful: { severity: 'warning', icon: TriangleAlert },
  failed: { severity: 'error', icon: TriangleAlert },
} as const

/** What was read, and what it means. */
function Said({ test, stand, verdict }: { test: Test; stand: TestStand; verdict: Verdict }) {
  const showWorking = useWorkspace(s => s.showWorking)
  const { read, alsoBy, state } = stand
  if (!read || (state !== 'passed' && state !== 'doubtful' && state !== 'failed')) return null
  const { severity, icon: Icon } = looks[state]
  const { working } = verdict
  return (
    <Alert severity={severity} icon={<Icon size={22} aria-hidden />} role="status">
      <b>{verdict.name}.</b> {verdict.text} {verdict.next}
      <p>
        {test.asks
          .flatMap(a => {
            const value = read.readings.find(r => r.key === a.key)?.value
            return value === undefined ? [] : `${a.name} ${readingText(value, a.unit)}`
          })
          .join(' · ')}
      </p>
      <Quiet>
        {read.by}, {read.on}
        {read.instrument && `, ${read.instrument}`}
        {read.simulated && '; by a simulated instrument: it proves nothing in a house'}
        {alsoBy.length > 0 && `; read by ${together(alsoBy)} as well`}
      </Quiet>
      {working && (
        <Button size="small" aria-haspopup="dialog" onClick={() => showWorking(working)}>
          Show the working
        </Button>
      )}
    </Alert>
  )
}

/** What can be wrong, the likeliest first; what was found and mended has the test done again. */
function Causes({ test, causes, simulated }: { test: Test; causes: Test['causes']; simulated: boolean }) {
  const record = useRecordTest()
  const say = useWorkspace(s => s.say)
  const [looked, setLooked] = useState<string | null>(null)
  const mend = (what: string, cause?: string) => {
    const [refused] = record(test, {
      kind: 'mended',
      what: what.slice(0, 200),
      ...(cause && { cause }),
      ...(simulated && { simulated: true as const }),
    })
    say(refused ? refused.message : 'Written down. Read the test again.')
  }
  const sheet = useSheet<{ what: string }, string>({
    values: { what: '' },
    read: ({ what }) =>
      what.trim() ? ok(what.trim()) : fail(fault('what', 'must say what was found and put right')),
    save: what => {
      mend(what)
      return null
    },
  })
  return (
    <Column component="section" aria-label="What can be wrong">
      <h3>What can be wrong</h3>
      {causes.map(c => (
        <Box key={c.id} sx={{ borderLeft: 4, borderColor: 'severity.stop', pl: 1.25 }}>
          <p>
            <b>{c.text}</b> {c.mend}
          </p>
          {looked === c.id ? (
            <Row>
              <Button
                variant="contained"
                startIcon={<Wrench size={18} aria-hidden />}
                onClick={() => mend(c.text, c.id)}
              >
                Mended
              </Button>
              <Button onClick={() => setLooked(null)}>Sound, look on</Button>
            </Row>
          ) : (
            <Button size="small" onClick={() => setLooked(c.id)}>
              Found it here
            </Button>
          )}
        </Box>
      ))}
      <Fold title="It was something else">
        {() => (
          <Form sheet={sheet}>
            <LineField name="what" label="What was found and put right" />
            <OtherFaults />
            <Button type="submit" variant="outlined">
              Mended
            </Button>
          </Form>
        )}
      </Fold>
    </Column>
  )
}

/** Minutes that what just ran still rests, counted down. */
function Rest({ test, stands }: { test: Test; stands: Tests['stand']['tests'] }) {
  const left = useRest(test.circuitIds[0] ?? '', test.restMin, stands)
  if (left === null)
    return (
      <Quiet>
        It starts against pressure: {test.restMin} minutes off before it is fed again, whatever ran it last.
      </Quiet>
    )
  return (
    <Alert severity="warning" role="timer">
      It may have run until a moment ago: wait <b>{left}</b> before it is fed.
    </Alert>
  )
}

/** Photograph, note, left out with a reason: as it was while the test is read. */
const More = memo(function More({ test, onPhoto }: { test: Test; onPhoto: () => Promise<void> }) {
  const id = useWorkspace(s => s.id)
  const say = useWorkspace(s => s.say)
  const edition = useWorkspace(s => s.job.edition)
  const record = useRecordTest()
  const photograph = async (file: File) => {
    const taken = await takePhoto(id, test, file)
    if ('refused' in taken) return say(taken.refused)
    await onPhoto()
  }
  const note = useSheet<{ text: string }, string>({
    values: { text: '' },
    read: ({ text: said }) => (said.trim() ? ok(said.trim()) : fail(fault('text', 'must say something'))),
    save: said => record(test, { kind: 'note', text: said }),
    done: () => note.form.reset({ text: '' }),
  })
  const leave = useSheet<{ why: string }, string>({
    values: { why: '' },
    read: ({ why }) =>
      why.trim() ? ok(why.trim()) : fail(fault('why', 'must give a reason: it prints, with your name')),
    save: why => record(test, { kind: 'left out', why }),
    done: () => leave.form.reset({ why: '' }),
  })
  return (
    <>
      <Columns least={140}>
        <FileButton
          what={`Photograph: ${test.text}`}
          accept={pictures}
          camera
          variant="outlined"
          startIcon={<Camera size={20} aria-hidden />}
          onFiles={([file]) => (file ? photograph(file) : undefined)}
        >
          Photograph
        </FileButton>
      </Columns>
      <Fold title="Instruments, articles, note, leave out">
        {() => (
          <Column>
            {[...new Set(test.asks.map(a => a.instrument))].map(i => (
              <Quiet key={i}>
                <b>{instruments[i].name}.</b> {instruments[i].mind}
              </Quiet>
            ))}
            {test.cite.length > 0 && (
              <Quiet>
                {inEdition(`NEC ${test.cite.join(', ')}`, edition)}; local code and the equipment’s
                instructions decide.
              </Quiet>
            )}
            <Form sheet={note}>
              <LineField name="text" label="Note" most={500} lines={2} />
              <OtherFaults />
              <Button type="submit">Keep the note</Button>
            </Form>
            <Form sheet={leave}>
              <LineField name="why" label="Why it is left out; it prints, with your name" />
              <OtherFaults />
              <Button type="submit" color="inherit">
                Leave it out
              </Button>
            </Form>
          </Column>
        )}
      </Fold>
    </>
  )
})

function HistoryLine({ test, entry: e }: { test: Test; entry: TestEntry }) {
  const who = `${e.by}, ${e.on}`
  switch (e.kind) {
    case 'read':
      return (
        <>
          {who}:{' '}
          {e.readings
            .map(
              r =>
                `${test.asks.find(a => a.key === r.key)?.name ?? r.key} ${readingText(r.value, test.asks.find(a => a.key === r.key)?.unit ?? null)}`,
            )
            .join(', ')}{' '}
          <Chip size="small" label={e.judged} />{' '}
          {e.simulated && <Chip size="small" variant="outlined" label="simulated" />}
        </>
      )
    case 'mended':
      return (
        <>
          {who}: mended: {e.what}
        </>
      )
    case 'left out':
      return (
        <>
          {who}: left out: {e.why}
        </>
      )
    case 'note':
      return (
        <>
          {who}: {e.text}
        </>
      )
    default:
      return <>{who}</>
  }
}
