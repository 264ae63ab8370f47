'use client'
import { Alert, Box, Button, List, ListItem, Typography } from '@mui/material'
import { Plus } from 'lucide-react'
import dynamic from 'next/dynamic'
import Link from 'next/link'
import { type ReactNode, useEffect, useMemo, useState } from 'react'
import { type LoadRow, loadsOverview } from '@/core/assess/loads-overview'
import type { BySchool, Learn, TierNeed } from '@/core/assess/measure-next'
import { withoutText } from '@/core/assess/measure-next'
import type { School } from '@/core/loads/evidence'
import { figure, plural, quantity } from '@/core/units/format'
import { DataTable } from '../common/DataTable'
import { Level } from '../common/Level'
import { Card, Columns, Empty, FigureLink, Quiet, View } from '../common/pieces'
import { FindingsHere } from '../findings/FindingsHere'
import { useWorkspace } from '../workspace/store'
import { From } from './From'
import { LoadsTabs } from './LoadsTabs'

const LoadSheet = dynamic(() => import('./LoadSheet').then(m => m.LoadSheet))
const LibraryPicker = dynamic(() => import('../library/LibraryPicker').then(m => m.LibraryPicker))

/** What each circuit draws, how that is known, what it needs by each school, and what to measure next. */
export function LoadsView() {
  const job = useWorkspace(s => s.job)
  const id = useWorkspace(s => s.id)
  const view = useMemo(() => loadsOverview(job), [job])
  const [open, setOpen] = useState<string | null>(null)
  const [adding, setAdding] = useState(false)
  // a finding points at a load by the address
  useEffect(() => {
    const look = () => {
      const loadId = decodeURIComponent(window.location.hash.slice(1))
      if (loadId) setOpen(loadId)
    }
    look()
    window.addEventListener('hashchange', look)
    return () => window.removeEventListener('hashchange', look)
  }, [])
  const close = () => {
    setOpen(null)
    if (window.location.hash) window.history.replaceState(null, '', window.location.pathname)
  }
  const row = view.rows.find(r => r.load.id === open)
  const counted = view.rows.filter(r => r.counts)
  return (
    <View
      title="Loads"
      lead={
        <>
          {counted.length
            ? `${plural(counted.length, 'load')} on picked circuits: ${quantity(view.dailyWh, 'Wh')} a day`
            : 'No load on a picked circuit yet'}
          {view.conditions ? `, ${view.conditions}. ` : '. '}
          <Link href={`/jobs/${id}/outage`}>{view.conditions ? 'Change' : 'Say season and weather'}</Link>
        </>
      }
      tools={<LoadsTabs />}
    >
      {view.explained && <Alert>{view.explained.sentence}</Alert>}
      {counted.length > 0 && (
        <>
          <Schools schools={view.schools} />
          <Columns least={380}>
            <Next learn={view.learn} onOpen={setOpen} />
            <Tiers tiers={view.tiers} />
          </Columns>
        </>
      )}
      <Card
        aria-label="Loads by circuit"
        title="By circuit"
        tools={
          <Button size="small" startIcon={<Plus size={18} />} onClick={() => setAdding(true)}>
            Add a load
          </Button>
        }
      >
        <LoadTable rows={view.rows} onOpen={setOpen} />
      </Card>
      <FindingsHere view="loads" />
      {row && <LoadSheet key={row.load.id} row={row} onClose={close} />}
      {adding && (
        <LibraryPicker
          onClose={() => setAdding(false)}
          onAdded={loadId => {
            setAdding(false)
            setOpen(loadId)
          }}
        />
      )}
    </View>
  )
}

const schoolNames: Record<School, { name: string; help: string }> = {
  nameplate: { name: 'Nameplate', help: 'what the plates say, and the habit' },
  metered: { name: 'Metered', help: 'what the meters say' },
  blended: { name: 'In force', help: 'the best source of each figure, or the one chosen' },
}

/** The three schools side by side, with the loads that make the difference. */
function Schools({ schools }: { schools: BySchool[] }) {
  const rows: { label: string; of: (s: BySchool) => ReactNode }[] = [
    { label: 'Average over the outage', of: s => quantity(s.meanW, 'W') },
    { label: 'A day', of: s => quantity(s.dailyWh, 'Wh') },
    { label: 'Running together', of: s => `${quantity(s.W, 'W')}, ${quantity(s.VA, 'VA')}` },
    {
      label: 'Worst start, with what runs',
      of: s =>
        s.worstStart
          ? `${quantity(s.worstStart.needVA, 'VA')}: ${s.worstStart.load}, by ${s.worstStart.method}`
          : 'none to speak of',
    },
    {
      label: 'Why it differs',
      of: s => (
        <Quiet component="div">
          {s.school === 'blended' ? 'this is what the balance counts' : <Reasons school={s} />}
        </Quiet>
      ),
    },
  ]
  return (
    <Card aria-label="Needs by school" title="What is needed, by each school">
      <DataTable
        label="Needs by school"
        rows={rows}
        columns={[
          { head: '', names: true, sx: { minWidth: 130 }, cell: r => r.label },
          ...schools.map(s => ({
            head: (
              <>
                <b>{schoolNames[s.school].name}</b>
                <div>{schoolNames[s.school].help}</div>
              </>
            ),
            cell: (r: (typeof rows)[number]) => r.of(s),
            sx: s.school === 'blended' ? inForce : undefined,
          })),
        ]}
      />
    </Card>
  )
}

const inForce = {
  px: '10px !important',
  bgcolor: 'color-mix(in srgb, var(--mui-palette-water-live) 26%, transparent)',
}

function Reasons({ school }: { school: BySchool }) {
  return (
    <>
      {school.reasons.map(r => (
        <div key={r}>{r}</div>
      ))}
      {!school.reasons.length && <div>it hardly does</div>}
      {school.without.length > 0 && <div>{withoutText(school.without)}; the figure in force stands in</div>}
    </>
  )
}

/** What to measure next, by how much of the doubt each load makes. */
function Next({ learn, onOpen }: { learn: Learn; onOpen: (loadId: string) => void }) {
  const showWorking = useWorkspace(s => s.showWorking)
  const { dailyWh, hours, next } = learn
  return (
    <Card title="What to measure next">
      <p>
        Four days in five take {quantity(dailyWh.low, 'Wh')} to {quantity(dailyWh.high, 'Wh')}
        {hours && `: ${quantity(hours.low, 'h')} to ${quantity(hours.high, 'h')} of run time`}.{' '}
        <Button size="small" aria-haspopup="dialog" onClick={() => showWorking(learn.working)}>
          Show the working
        </Button>
      </p>
      <List disablePadding component="ol">
        {next.slice(0, 5).map(n => (
          <ListItem
            key={`${n.moves} ${n.load.load.id}`}
            disableGutters
            sx={{ gap: 1.25, alignItems: 'start' }}
          >
            <Box sx={{ flex: '0 0 56px', fontWeight: 700, textAlign: 'right' }}>
              {n.moves === 'start' ? 'start' : quantity(n.share, 'fraction')}
            </Box>
            <span>
              <FigureLink onClick={() => onOpen(n.load.load.id)}>{n.load.load.name}</FigureLink> on{' '}
              {n.load.need.position}. {n.why} <Quiet component="span">{n.how}</Quiet>
            </span>
          </ListItem>
        ))}
      </List>
    </Card>
  )
}

const tierNames = { 1: 'Must run', 2: 'Should run', 3: 'May go' } as const

/** The day's energy as it flows out: by importance, then by circuit. */
function Tiers({ tiers }: { tiers: TierNeed[] }) {
  const most = Math.max(...tiers.flatMap(t => t.circuits.map(c => c.dailyWh)), 1)
  return (
    <Card aria-label="Energy a day by importance" title="Where a day’s energy goes">
      {tiers.map(t => (
        <div key={t.tier}>
          <p>
            <b>{tierNames[t.tier]}</b>: {quantity(t.dailyWh, 'Wh')} a day
          </p>
          {t.circuits.map(c => (
            <Box
              key={c.circuitId}
              sx={{
                display: 'grid',
                gridTemplateColumns: 'minmax(110px, 34%) 1fr 84px',
                gap: 1,
                alignItems: 'center',
                textAlign: 'right',
              }}
            >
              <Typography noWrap align="left" title={`${c.position} ${c.name}`}>
                {c.position} {c.name}
              </Typography>
              <Level full={c.dailyWh / most} />
              <b>{quantity(c.dailyWh, 'Wh')}</b>
            </Box>
          ))}
        </div>
      ))}
    </Card>
  )
}

function LoadTable({ rows, onOpen }: { rows: LoadRow[]; onOpen: (loadId: string) => void }) {
  if (!rows.length)
    return (
      <Empty>No load is entered yet. Add one from the library here, or with its circuit on the panel.</Empty>
    )
  return (
    <>
      <DataTable
        label="Loads by circuit"
        rows={rows}
        idOf={r => `${r.circuitId} ${r.load.id}`}
        rowProps={r => (r.counts ? {} : { sx: { color: 'text.secondary' } })}
        columns={[
          {
            head: 'Circuit',
            cell: r => `${r.position} ${r.label}${r.counts ? '' : r.picked ? ' (not fed)' : ' (not picked)'}`,
          },
          {
            head: 'Load',
            cell: r => <FigureLink onClick={() => onOpen(r.load.id)}>{r.load.name}</FigureLink>,
          },
          { head: 'Running', figure: true, cell: r => quantity(r.load.runningW.value, 'W') },
          {
            head: 'Runs',
            figure: true,
            cell: r =>
              `${figure(100 * r.drawn.dutyFraction)} %${r.drawn.scaling.kind === 'weather' ? '*' : ''}`,
          },
          { head: 'A day', figure: true, cell: r => quantity(r.drawn.dailyWh, 'Wh') },
          { head: 'Energy known by', cell: r => <From from={r.from} /> },
          {
            head: 'Start known by',
            cell: r => (r.startFrom ? <From from={r.startFrom} /> : <Quiet>no start</Quiet>),
          },
        ]}
      />
      {rows.some(r => r.drawn.scaling.kind === 'weather') && (
        <Quiet>* scaled to the weather of the outage</Quiet>
      )}
    </>
  )
}
