'use client'
import { Button, Paper, Typography } from '@mui/material'
import dynamic from 'next/dynamic'
import { type ComponentProps, memo, useDeferredValue, useMemo, useState } from 'react'
import type { CourseTrace } from '@/core/outage/trace'
import { asItIs, isAsItIs, type WhatIf } from '@/core/outage/what-if'
import { outOf100 } from '@/core/outage/words'
import { shortName } from '@/core/source/short-name'
import { sentenceStart, together } from '@/core/units/format'
import { Fold } from '../common/Fold'
import { Problem } from '../common/Problem'
import { Card, Empty, Quiet, Row, View } from '../common/pieces'
import { FindingsHere } from '../findings/FindingsHere'
import { useWorkspace } from '../workspace/store'
import { AskedFields } from './AskedFields'
import { LivedThrough } from './LivedThrough'
import styles from './Outage.module.css'
import { marksText, OutageChart, type Overlay } from './OutageChart'
import { OutageTables } from './OutageTables'
import { PanelThen } from './PanelThen'
import { type Simulated, useOutage } from './useOutage'
import { WhatIfBar } from './WhatIfBar'

const SearchDesk = dynamic(() => import('./SearchDesk'))

/** What was held for comparison, by job: it stays while the source is changed elsewhere. */
const held = new Map<string, Overlay>()

/** The question on every job: how long, how likely, what goes first, and what if. */
export function OutageView() {
  const job = useWorkspace(s => s.job)
  return (
    <View
      title="Outage"
      tools={
        <Row component="nav" aria-label="On this screen">
          {job.source && <Button href="#what-if">What if</Button>}
          <Button href="#asked-for">Asked for</Button>
          <Button href="#lived-through">How it is lived through</Button>
          <Button href="#search-designs">Search designs</Button>
        </Row>
      }
    >
      {job.source ? <Outlook /> : <Empty>Choose a source, and its outage is simulated here.</Empty>}
      <Card id="asked-for" aria-label="Outage asked for" title="Asked for">
        <AskedFields />
      </Card>
      <LivedThrough />
      <SearchDesk />
      <FindingsHere view="outage" />
    </View>
  )
}

function Outlook() {
  const job = useWorkspace(s => s.job)
  const id = useWorkspace(s => s.id)
  const closed = useWorkspace(s => s.evaluation.balance.find(l => l.id === 'hours'))
  const showWorking = useWorkspace(s => s.showWorking)
  const [whatIf, setWhatIf] = useState<WhatIf>(asItIs)
  const simulated = useOutage(job, whatIf)
  const [hour, setHour] = useState(0)
  const [overlay, setOverlay] = useState<Overlay | null>(held.get(id) ?? null)
  const { plan, mean, chance, answer, one, faults, busy, trouble, stop, look } = simulated
  if (trouble || faults.length)
    return (
      <>
        <Problem>{trouble ?? faults.map(f => `${sentenceStart(f.path)} ${f.message}.`).join(' ')}</Problem>
        {!isAsItIs(whatIf) && <WhatIfBar value={whatIf} onChange={setWhatIf} />}
      </>
    )
  if (!plan || !mean) return <Empty>The outage is being simulated…</Empty>
  const trace: CourseTrace = one ?? mean
  const hold = () => {
    const now = { name: job.source ? shortName(job.source) : 'this design', mean, chance }
    held.set(id, now)
    setOverlay(now)
  }
  return (
    <>
      <Paper
        component="section"
        variant="outlined"
        aria-label="Answer"
        aria-live="polite"
        data-settled={!busy}
        sx={{ p: 1.5, borderLeft: 6, borderLeftColor: 'water.live', contain: 'layout style' }}
      >
        <Typography variant="h2" component="p">
          {answer?.headline ?? closed?.sentence}
          {!isAsItIs(whatIf) && <em> (what if)</em>}
        </Typography>
        <Quiet>
          {answer ? answer.sureness : 'The mean is drawn; the chances are being drawn.'}{' '}
          {busy && (
            <Button size="small" onClick={stop}>
              Stop
            </Button>
          )}
          {answer && (
            <Button size="small" onClick={() => showWorking(answer.working)}>
              Show the working
            </Button>
          )}
        </Quiet>
        {answer && <Lines simulated={simulated} />}
        <Quiet>
          {answer?.working.ruleOfThumb && `Rule of thumb. ${answer.working.ruleOfThumb}. `}
          At the average draw: {closed?.sentence}
        </Quiet>
      </Paper>
      <Paper component="figure" variant="outlined" sx={{ p: 1.5, contain: 'layout style' }}>
        <div className={styles.legend} aria-hidden="true">
          <span data-key="water">store, {trace.draw < 0 ? 'on average' : `draw ${trace.draw + 1}`}</span>
          {chance && <span data-key="band">half and nine tenths of the draws</span>}
          {overlay && <span data-key="overlay">{overlay.name}, held</span>}
          {plan.arrays.length > 0 && <span data-key="sun">sun</span>}
          {plan.generator && <span data-key="gen">generator</span>}
          {plan.hasTier[0] && <span data-key="must">must run</span>}
          {plan.hasTier[1] && <span data-key="should">should run</span>}
          {plan.hasTier[2] && <span data-key="may">may go</span>}
          <span data-key="lost">lost</span>
          <span data-key="battery">battery, out of and into</span>
        </div>
        <OutageChart
          plan={plan}
          trace={trace}
          chance={chance}
          overlay={overlay}
          hour={Math.min(hour, plan.hours)}
          onHour={setHour}
        />
        <Quiet component="figcaption">
          {marksText(trace) && `${marksText(trace)} `}Press in the drawing, or move the slider below, to see
          the panel at that hour.
          {trace.draw < 0 &&
            chance &&
            chance.trips.fraction > 0 &&
            ' The average course knows no starts and no overloads: one of the draws shows them.'}
        </Quiet>
        <Row sx={{ mt: 1 }}>
          <Button variant={one ? 'outlined' : 'contained'} aria-pressed={!one} onClick={() => look(null)}>
            Average course
          </Button>
          <Button
            variant={one ? 'contained' : 'outlined'}
            aria-pressed={Boolean(one)}
            onClick={() => look(one ? one.draw + 1 : 0)}
          >
            {one ? `Draw ${one.draw + 1}: next one` : 'One of the draws'}
          </Button>
          {overlay ? (
            <Button
              variant="outlined"
              onClick={() => {
                held.delete(id)
                setOverlay(null)
              }}
            >
              Let go of {overlay.name}
            </Button>
          ) : (
            <Button variant="outlined" onClick={hold}>
              Hold for comparison
            </Button>
          )}
        </Row>
      </Paper>
      <PanelSoon plan={plan} trace={trace} hour={Math.min(hour, plan.hours)} onHour={setHour} />
      <WhatIfBar value={whatIf} onChange={setWhatIf} />
      <TablesSoon plan={plan} trace={trace} chance={chance} name={job.title} />
    </>
  )
}

const PanelMemo = memo(PanelThen)
/** The panel a moment after the drawing: a slider of the what-if waits for the curve alone. */
function PanelSoon({ plan, trace, ...rest }: ComponentProps<typeof PanelThen>) {
  const now = useMemo(() => ({ plan, trace }), [plan, trace])
  return <PanelMemo {...useDeferredValue(now)} {...rest} />
}

function TablesSoon({ plan, trace, chance, name }: ComponentProps<typeof OutageTables>) {
  const now = useMemo(() => ({ plan, trace, chance }), [plan, trace, chance])
  return <OutageTables {...useDeferredValue(now)} name={name} />
}

function Lines({ simulated: { answer } }: { simulated: Simulated }) {
  if (!answer) return null
  return (
    <>
      <Row component="ul" sx={{ columnGap: 3, my: 1, p: 0, listStyle: 'none' }}>
        {answer.tiers.map(t => (
          <li key={t.tier}>
            <strong>{outOf100(t.fraction)} of 100</strong> {t.name.toLowerCase()}, served throughout
            {t.dark.length > 0 && `; not fed: ${together(t.dark)}`}
          </li>
        ))}
      </Row>
      <ul>
        {[answer.trips, answer.hours, answer.left, answer.generator].filter(Boolean).map(text => (
          <li key={text}>{text}</li>
        ))}
      </ul>
      <Fold title="What is taken for granted">
        {() => (
          <ul>
            {answer.assumptions.map(text => (
              <li key={text}>{text}</li>
            ))}
          </ul>
        )}
      </Fold>
    </>
  )
}
