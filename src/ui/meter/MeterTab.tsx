import { Alert, Button, List, ListItem, ToggleButton, ToggleButtonGroup } from '@mui/material'
import { Trash2 } from 'lucide-react'
import dynamic from 'next/dynamic'
import { useState } from 'react'
import type { LoadRow } from '@/core/assess/loads-overview'
import { changeTold } from '@/core/assess/loads-overview'
import type { Log } from '@/core/loads/log'
import { worked } from '@/core/loads/log-of'
import type { Fault } from '@/core/outcome'
import { quantity } from '@/core/units/format'
import { Column, Quiet } from '../common/pieces'
import { useWorkspace, useWorkspaceStore } from '../workspace/store'

const PlugInForm = dynamic(() => import('./PlugInForm').then(m => m.PlugInForm))
const ClampForm = dynamic(() => import('./ClampForm').then(m => m.ClampForm))
const SeriesDesk = dynamic(() => import('./SeriesDesk').then(m => m.SeriesDesk))

const ways = [
  ['readings', 'Plug-in meter'],
  ['clamp', 'Clamp meter'],
  ['series', 'A series from a file'],
  ['simulated', 'Simulated meter'],
] as const
type Way = (typeof ways)[number][0]

/** The meters' word on a load: readings typed in, a series from a file, a simulated meter; and the logs that were taken. */
export function MeterTab({ row }: { row: LoadRow }) {
  const store = useWorkspaceStore()
  const act = useWorkspace(s => s.act)
  const [way, setWay] = useState<Way>('readings')
  const [told, setTold] = useState<string | null>(null)
  const { load, circuitId } = row
  const take = (log: Log): Fault[] => {
    const before = store.getState().job
    const refused = act({ op: 'takeLog', circuitId, loadId: load.id, log })
    if (!refused.length) setTold(changeTold(before, store.getState().job, load.id))
    return refused
  }
  return (
    <Column>
      {told && <Alert role="status">{told} Undo takes it back.</Alert>}
      <Logs row={row} />
      <ToggleButtonGroup
        exclusive
        size="small"
        value={way}
        onChange={(_, next: Way | null) => next && setWay(next)}
        aria-label="How it was metered"
        sx={{ flexWrap: 'wrap' }}
      >
        {ways.map(([key, label]) => (
          <ToggleButton key={key} value={key}>
            {label}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      {way === 'readings' && <PlugInForm row={row} onTake={take} />}
      {way === 'clamp' && <ClampForm row={row} onTold={setTold} />}
      {(way === 'series' || way === 'simulated') && (
        <SeriesDesk key={way} row={row} simulated={way === 'simulated'} onTake={take} />
      )}
    </Column>
  )
}

/** The logs of this load, newest first. */
function Logs({ row: { load, circuitId } }: { row: LoadRow }) {
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const showWorking = useWorkspace(s => s.showWorking)
  const logs = load.logs ?? []
  if (!logs.length) return <Quiet>No log of this load yet.</Quiet>
  return (
    <List dense disablePadding aria-label="Logs of this load">
      {[...logs].reverse().map(log => {
        const { result, working } = worked(log)
        const hours = log.spans.reduce((sum, s) => sum + s.hours, 0)
        return (
          <ListItem key={log.id} disableGutters sx={{ flexWrap: 'wrap' }}>
            <span style={{ flex: '1 1 180px' }}>
              <b>{log.name}</b>, {log.on}: {quantity(hours, 'h')}, {quantity(result.dailyWh, 'Wh')} a day,
              runs {quantity(result.dutyFraction, 'fraction')} of the time
              {log.outdoorC !== undefined && `, ${quantity(log.outdoorC, 'C')} outdoors`}
              {log.inrushA !== undefined && `, inrush ${quantity(log.inrushA, 'A')}`}
            </span>
            <Button size="small" aria-haspopup="dialog" onClick={() => showWorking(working)}>
              Show the working
            </Button>
            <Button
              size="small"
              color="error"
              startIcon={<Trash2 size={16} />}
              aria-label={`Remove the log ${log.name}`}
              onClick={() => {
                const [fault] = act({ op: 'removeLog', circuitId, loadId: load.id, logId: log.id })
                say(fault ? `Not removed: ${fault.message}` : 'The log is removed. Undo brings it back.')
              }}
            >
              Remove
            </Button>
          </ListItem>
        )
      })}
    </List>
  )
}
