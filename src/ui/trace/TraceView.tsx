'use client'
import { Box, List, ListItem, ListItemButton, ToggleButton, ToggleButtonGroup } from '@mui/material'
import dynamic from 'next/dynamic'
import { useMemo, useState } from 'react'
import { positionText } from '@/core/panel/positions'
import type { Circuit } from '@/core/panel/schema'
import { type Tracing, tracingOf } from '@/core/panel/tracing'
import { Empty, Quiet, View } from '../common/pieces'
import { foundPanel, useWorkspace } from '../workspace/store'
import { TraceCard } from './TraceCard'
import { Connection, useOffline } from './useOffline'

const PanelTabs = dynamic(() => import('../panel/PanelTabs').then(m => m.PanelTabs))

type Show = 'left' | 'doubtful' | 'nothing' | 'doubled' | 'all'
const shows: { key: Show; label: (t: Tracing) => string }[] = [
  { key: 'left', label: t => `${t.left.length} to trace` },
  { key: 'doubtful', label: t => `${t.doubtful.length} doubtful` },
  { key: 'nothing', label: t => `${t.nothing.length} no load found` },
  { key: 'doubled', label: t => `${t.doubled.length} double labels` },
  { key: 'all', label: () => 'all' },
]

/** Breaker by breaker: switch off, what died? For one thumb, and for a cellar without a connection. */
export function TraceView() {
  const panel = useWorkspace(foundPanel)
  const several = useWorkspace(s => s.job.panels.length > 1)
  const medical = useWorkspace(s => s.job.brief.medical === 'yes')
  const [show, setShow] = useState<Show>('left')
  const [currentId, setCurrentId] = useState<string | null>(null)
  const { online, kept, photos, send } = useOffline()
  const tracing = useMemo(() => tracingOf(panel), [panel])

  const list: Circuit[] = show === 'all' ? panel.circuits : tracing[show]
  const current = panel.circuits.find(c => c.id === currentId) ?? list[0]
  const done = (circuit: Circuit) => {
    const rest = list.filter(c => c.id !== circuit.id)
    setCurrentId(rest.find(c => c.position >= circuit.position)?.id ?? rest[0]?.id ?? null)
  }
  return (
    <View title="Trace the breakers">
      {several && <PanelTabs />}
      <Connection online={online} kept={kept} photos={photos} />
      <Quiet>
        {medical
          ? 'Someone here depends on a powered device: have it on its own battery before any breaker goes off. '
          : ''}
        Ask who is at a computer, in the elevator or on a medical device before you switch off. Cover on;
        handles only.
      </Quiet>
      <ToggleButtonGroup
        exclusive
        size="small"
        aria-label="Which breakers"
        value={show}
        onChange={(_, next: Show | null) => {
          if (!next) return
          setShow(next)
          setCurrentId(null)
        }}
        sx={{ flexWrap: 'wrap' }}
      >
        {shows.map(({ key, label }) => (
          <ToggleButton key={key} value={key}>
            {label(tracing)}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { md: 'minmax(0, 460px) minmax(0, 1fr)' },
          gap: 1.5,
          alignItems: 'start',
        }}
      >
        {current ? (
          <TraceCard
            key={current.id}
            panel={panel}
            circuit={current}
            onDone={() => done(current)}
            onPhoto={send}
          />
        ) : (
          <Empty>
            {panel.circuits.length
              ? show === 'left'
                ? `Every breaker of ${panel.name} was traced: ${tracing.known} known, ${tracing.doubtful.length} doubtful, ${tracing.nothing.length} without a load.`
                : 'None.'
              : 'This panel has no breakers yet.'}
          </Empty>
        )}
        <List component="ol" disablePadding aria-label="Breakers">
          {list.map(c => (
            <ListItem key={c.id} disablePadding divider>
              <ListItemButton
                selected={c === current}
                aria-current={c === current}
                onClick={() => setCurrentId(c.id)}
                sx={{ gap: 1 }}
              >
                <b style={{ minWidth: 48 }}>{positionText(panel, c)}</b>
                <span style={{ flex: 1 }}>{c.label || 'unlabelled'}</span>
                <Quiet component="span">{c.traced ? words[c.traced.found] : 'not traced'}</Quiet>
              </ListItemButton>
            </ListItem>
          ))}
        </List>
      </Box>
    </View>
  )
}

const words = { known: 'known', doubtful: 'doubtful', nothing: 'no load found' } as const
