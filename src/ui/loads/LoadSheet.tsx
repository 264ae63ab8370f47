import { Tab, Tabs, useMediaQuery } from '@mui/material'
import type { Theme } from '@mui/material/styles'
import { X } from 'lucide-react'
import dynamic from 'next/dynamic'
import { useState } from 'react'
import { conditionsOf } from '@/core/ask/outage-asked'
import type { LoadRow } from '@/core/assess/loads-overview'
import { drawnWorking } from '@/core/loads/draw'
import { quantity } from '@/core/units/format'
import { Popup } from '../common/Popup'
import { FigureLink, Quiet } from '../common/pieces'
import { Tool } from '../common/Tool'
import { useChosenUnits } from '../form/units'
import { useWorkspace } from '../workspace/store'
import { FiguresTab } from './FiguresTab'

const PlateTab = dynamic(() => import('./PlateTab').then(m => m.PlateTab))
const MeterTab = dynamic(() => import('../meter/MeterTab').then(m => m.MeterTab))
const PatternTab = dynamic(() => import('./PatternTab').then(m => m.PatternTab))

const tabs = ['Figures', 'Nameplate', 'Meter', 'When it runs'] as const

/** Everything that is known of one load: its figures by source, its plate, its meter's logs, when it runs. */
export function LoadSheet({ row, onClose }: { row: LoadRow; onClose: () => void }) {
  const [tab, setTab] = useState<(typeof tabs)[number]>('Figures')
  const job = useWorkspace(s => s.job)
  const showWorking = useWorkspace(s => s.showWorking)
  useChosenUnits()
  const phone = useMediaQuery<Theme>(theme => theme.breakpoints.down('sm'))
  const { load, position, label, volts, drawn } = row
  return (
    <Popup
      onClose={onClose}
      close={null}
      maxWidth="md"
      fullScreen={phone}
      title={
        <>
          {load.name}{' '}
          <Quiet component="span">
            on {position} {label}, {volts} V
          </Quiet>
          <Tool label="Close" onClick={onClose} sx={{ position: 'absolute', right: 12, top: 12 }} icon={X} />
        </>
      }
    >
      <FigureLink onClick={() => showWorking(drawnWorking(load, conditionsOf(job)))}>
        {quantity(drawn.dailyWh, 'Wh')} a day, {quantity(drawn.meanW, 'W')} on average over the outage
      </FigureLink>
      <Tabs
        value={tab}
        onChange={(_, next) => setTab(next)}
        variant="scrollable"
        aria-label="What is known of it"
      >
        {tabs.map(t => (
          <Tab key={t} value={t} label={t} />
        ))}
      </Tabs>
      {tab === 'Figures' && <FiguresTab row={row} />}
      {tab === 'Nameplate' && <PlateTab row={row} />}
      {tab === 'Meter' && <MeterTab row={row} />}
      {tab === 'When it runs' && <PatternTab row={row} onClose={onClose} />}
    </Popup>
  )
}
