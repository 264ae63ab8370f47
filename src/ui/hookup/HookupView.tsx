'use client'
import { Chip, List, ListItem } from '@mui/material'
import dynamic from 'next/dynamic'
import { Fragment } from 'react'
import type { Equipment } from '@/core/equipment'
import { methodOf } from '@/core/hookup/method'
import { movesCircuits } from '@/core/job/panels'
import { Card, Columns, Quiet, View } from '../common/pieces'
import { FindingsHere } from '../findings/FindingsHere'
import { useWorkspace } from '../workspace/store'
import { type Hours, MethodsTable } from './MethodsTable'
import { PathBuilder } from './PathBuilder'
import { PlannedCard } from './PlannedCard'
import { RunsCard } from './RunsCard'

// a way of connecting has one of the two, or neither
const PositionsDesk = dynamic(() => import('./PositionsDesk').then(m => m.PositionsDesk))
const LandingDesk = dynamic(() => import('./LandingDesk').then(m => m.LandingDesk))

/** How the source meets the house: methods side by side, then the one that is planned in all its parts. */
export function HookupView({ catalogue, hours }: { catalogue: Equipment[]; hours: Hours }) {
  const grounding = useWorkspace(s => s.evaluation.grounding)
  const byPositions = useWorkspace(s => methodOf(s.job.hookup.method).serves === 'positions')
  const moves = useWorkspace(s => movesCircuits(s.job))
  return (
    <View title="Hook-up">
      <MethodsTable catalogue={catalogue} hours={hours} />
      <Columns least={340} sx={{ gridTemplateColumns: { md: '1.4fr 1fr' } }}>
        <PlannedCard catalogue={catalogue} />
        <Card title="Neutral and ground" id="bonding">
          <p>{grounding.text}</p>
          {grounding.unknown.length > 0 && (
            <p role="note">Not stated, and it decides the count: {grounding.unknown.join('; ')}.</p>
          )}
          <List dense disablePadding aria-label="What is joined by its neutral while the source runs">
            {grounding.systems.map(s => (
              <ListItem
                key={s.map(n => n.name).join()}
                disableGutters
                sx={{ flexWrap: 'wrap', gap: 0.75 }}
                data-bonds={s.filter(n => n.bonded).length}
              >
                {s.map((n, at) => (
                  <Fragment key={n.name}>
                    {at > 0 && <i aria-hidden>—</i>}
                    {n.name}
                    {n.bonded && <Chip size="small" label="N–G" title="neutral and ground joined here" />}
                  </Fragment>
                ))}
              </ListItem>
            ))}
          </List>
          <Quiet>
            Exactly one bond while the source runs (NEC 250.24, 250.30). The equipment ground is never
            switched.
          </Quiet>
        </Card>
      </Columns>
      <PathBuilder catalogue={catalogue} />
      {byPositions && <PositionsDesk />}
      {moves && <LandingDesk />}
      <RunsCard />
      <FindingsHere view="hook-up" />
    </View>
  )
}
