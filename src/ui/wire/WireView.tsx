'use client'
import { Box, List, ListItem, ToggleButton, ToggleButtonGroup } from '@mui/material'
import dynamic from 'next/dynamic'
import { useDeferredValue, useMemo, useState } from 'react'
import { deference } from '@/core/deference'
import { wiringSvg } from '@/core/formats/wiring-svg'
import { circuitsOf } from '@/core/job/panels'
import { plural } from '@/core/units/format'
import { wiringPlan } from '@/core/work/wiring'
import { Card, Empty, Quiet, Row, View } from '../common/pieces'
import { Takeaway } from '../common/Takeaway'
import { FindingsHere } from '../findings/FindingsHere'
import { Choice } from '../form/Choice'
import { useWorkspace } from '../workspace/store'
import { FarOutletsCard } from './FarOutletsCard'
import { JointsCard } from './JointsCard'
import { RoutesCard } from './RoutesCard'

const WireDrawing = dynamic(() => import('./WireDrawing').then(m => m.WireDrawing), { ssr: false })
const WallSketch = dynamic(() => import('./WallSketch').then(m => m.WallSketch), { ssr: false })
const ScheduleGrid = dynamic(() => import('./ScheduleGrid').then(m => m.ScheduleGrid), { ssr: false })
const HabitsCard = dynamic(() => import('./HabitsCard').then(m => m.HabitsCard), { ssr: false })

type Shown = 'drawing' | 'wall'

/** Which conductor goes where: drawn, on the wall, way by way and wire by wire; nothing of it is typed twice. */
export function WireView({ today, firm }: { today: string; firm: string }) {
  const id = useWorkspace(s => s.id)
  const revision = useWorkspace(s => s.revision)
  const job = useDeferredValue(useWorkspace(s => s.job))
  const plan = useMemo(() => wiringPlan(job), [job])
  const svg = useMemo(() => wiringSvg(plan, job.title), [plan, job.title])
  const [shown, setShown] = useState<Shown>('drawing')
  const [circuitId, setCircuit] = useState('')
  const [route, setRoute] = useState('')
  const led = useMemo(() => new Set(plan.conductors.map(c => c.circuitId)), [plan])
  const circuits = circuitsOf(job).filter(c => led.has(c.id))
  const lit = circuits.some(c => c.id === circuitId) ? circuitId : ''
  const way = plan.routes.some(r => r.id === route) ? route : ''
  const wires = plan.conductors.length
  return (
    <View
      title="Wire"
      lead="Which conductor goes where, worked out from the hook-up and the planned changes. The label on a terminal decides over what stands here."
      tools={
        <Takeaway
          formats={['pdf', 'svg', 'csv']}
          hrefOf={format => `/api/jobs/${id}/wiring?format=${format}`}
        />
      }
    >
      <Box sx={{ display: 'none', '@media print': { display: 'block' } }}>
        <b>{job.title}</b>
        {job.place && `, ${job.place}`}. {firm}, revision {revision}, {today}.
        <Box
          sx={{ '& svg': { width: '100%', height: 'auto', maxHeight: '88vh' } }}
          // biome-ignore lint/security/noDangerouslySetInnerHtml: our own drawing; every text in it is escaped
          dangerouslySetInnerHTML={{ __html: svg }}
        />
      </Box>
      {!wires && (
        <Empty>
          <h2>Nothing is wired yet</h2>
          <p>Choose a hook-up and the circuits that it serves: the wires follow from them.</p>
        </Empty>
      )}
      {wires > 0 && (
        <>
          <Card
            className="no-print"
            title={shown === 'drawing' ? 'Drawing' : 'The wall'}
            tools={
              <Row>
                {shown === 'drawing' && (
                  <Box sx={{ width: 230 }}>
                    <Choice
                      label="Light one circuit"
                      value={lit}
                      options={[
                        { value: '', label: 'all of them' },
                        ...circuits.map(c => ({ value: c.id, label: c.label || `at ${c.position}` })),
                      ]}
                      onChange={setCircuit}
                    />
                  </Box>
                )}
                <ToggleButtonGroup
                  exclusive
                  size="small"
                  aria-label="What is drawn"
                  value={shown}
                  onChange={(_, next: Shown | null) => next && setShown(next)}
                >
                  <ToggleButton value="drawing">Wires</ToggleButton>
                  <ToggleButton value="wall">Wall</ToggleButton>
                </ToggleButtonGroup>
              </Row>
            }
          >
            {shown === 'drawing' ? (
              <WireDrawing svg={svg} lit={lit} onLight={setCircuit} />
            ) : (
              <WallSketch plan={plan} />
            )}
          </Card>
          <RoutesCard plan={plan} />
          <ScheduleGrid plan={plan} circuitId={lit} route={way} onRoute={setRoute} />
          <JointsCard plan={plan} />
          <FarOutletsCard job={job} />
          <HabitsCard />
        </>
      )}
      {plan.open.length > 0 && (
        <Card
          id="to-be-looked-at"
          title="To be looked at"
          tools={<Quiet component="span">{plural(plan.open.length, 'point')}</Quiet>}
        >
          <List dense disablePadding>
            {plan.open.map(({ text, at }) => (
              <ListItem key={text} disableGutters data-at={at ?? undefined}>
                {text}
              </ListItem>
            ))}
          </List>
        </Card>
      )}
      <FindingsHere view="hook-up" />
      <Quiet>
        Torque every terminal as its label says, and write it down where it was done (NEC 110.14(D)).{' '}
        {deference}
      </Quiet>
    </View>
  )
}
