import { Button, List, ListItem } from '@mui/material'
import { Plus } from 'lucide-react'
import { useCallback, useMemo } from 'react'
import { mostWants, type Want } from '@/core/ask/brief'
import { likelyWants } from '@/core/ask/questions'
import { type Making, understood, wantOf } from '@/core/ask/want'
import type { FirstAnswer } from '@/core/first/answer'
import { placeText } from '@/core/job/panels'
import { plural } from '@/core/units/format'
import { Column, Row } from '../common/pieces'
import { moved, Sortable, SortableItem } from '../common/Sortable'
import { useWorkspace, useWorkspaceStore } from '../workspace/store'
import { AddThing } from './AddThing'
import { WantRow } from './WantRow'

/** Plain values, so that a row whose figures stand still is not drawn anew. */
function figuresOf({ byWant }: FirstAnswer, wantId: string) {
  const found = byWant.find(f => f.wantId === wantId)
  return { dailyWh: found?.dailyWh ?? 0, W: found?.W ?? 0, at240: found?.volts.includes(240) ?? false }
}

interface Props {
  making: Making
  answer: FirstAnswer
}

/** What must live, in order of importance; what the answers make likely is offered. */
export function Wants({ making, answer }: Props) {
  const act = useWorkspace(s => s.act)
  const job = useWorkspace(s => s.job)
  const { brief } = job
  const { wants } = brief
  const store = useWorkspaceStore()
  const { panels } = job
  const circuits = useMemo(
    () =>
      panels.flatMap(panel =>
        panel.circuits.map(c => ({
          id: c.id,
          picked: c.picked,
          name: `${placeText({ panels }, panel, c)} ${c.label || 'unlabelled'}`,
        })),
      ),
    [panels],
  )
  const unpicked = circuits
    .filter(c => !c.picked && wants.some(w => w.circuitIds.includes(c.id)))
    .map(c => c.id)
  const add = (more: readonly Want[]) => {
    const room = mostWants - wants.length
    const [fault] = act(...more.slice(0, room).map(want => ({ op: 'putWant' as const, want })))
    if (fault) return [fault]
    return more.length > room
      ? [
          {
            message: `At most ${mostWants} things: ${more
              .slice(room)
              .map(w => w.name)
              .join(', ')} did not fit. Put things that belong together into one.`,
          },
        ]
      : []
  }
  const move = useCallback(
    (from: number, to: number) =>
      act({
        op: 'answerBrief',
        answers: { wants: moved(store.getState().job.brief.wants, from, to) },
      }),
    [act, store],
  )
  const typical = making.library.map(e => e.typical)
  return (
    <Column spacing={1}>
      <b>What must stay alive, the most important first?</b>
      <AddThing making={making} onAdd={add} />
      <List disablePadding component="ol" aria-label="What must live">
        <Sortable items={wants} nameOf={w => w.name} onMove={move}>
          {(w, i) => (
            <SortableItem key={w.id} id={w.id} name={w.name}>
              {(grip, bind) => (
                <ListItem {...bind} disableGutters disablePadding divider sx={{ py: 0.5 }}>
                  {grip}
                  <WantRow
                    want={w}
                    place={i}
                    of={wants.length}
                    making={making}
                    circuits={circuits}
                    onMove={move}
                    {...figuresOf(answer, w.id)}
                  />
                </ListItem>
              )}
            </SortableItem>
          )}
        </Sortable>
      </List>
      {unpicked.length > 0 && (
        <Button
          size="small"
          variant="outlined"
          onClick={() =>
            act(...unpicked.map(circuitId => ({ op: 'selectCircuit' as const, circuitId, picked: true })))
          }
        >
          Pick {plural(unpicked.length, 'circuit')} of this list
        </Button>
      )}
      <Row spacing={0.5}>
        {likelyWants(brief).map(what => (
          <Button
            key={what}
            size="small"
            startIcon={<Plus size={15} aria-hidden />}
            onClick={() => add(understood(what, typical).map(u => wantOf(u, making)))}
          >
            {what}
          </Button>
        ))}
      </Row>
    </Column>
  )
}
