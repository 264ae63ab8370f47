import { Box, Button, List, ListItem, MenuItem, Select } from '@mui/material'
import { ArrowDown, ArrowUp, Plus, X } from 'lucide-react'
import type { Want } from '@/core/ask/brief'
import { likelyWants } from '@/core/ask/questions'
import { placeText } from '@/core/job/panels'
import { plural } from '@/core/units/format'
import { Column, Row } from '../common/pieces'
import { moved, Sortable, SortableItem } from '../common/Sortable'
import { Tool } from '../common/Tool'
import { AddLine } from '../form/AddLine'
import { useWorkspace } from '../workspace/store'

/** What must live, in order of importance; what the answers make likely is offered. */
export function Wants() {
  const brief = useWorkspace(s => s.job.brief)
  const act = useWorkspace(s => s.act)
  const job = useWorkspace(s => s.job)
  const { wants } = brief
  const circuits = job.panels.flatMap(panel =>
    panel.circuits.map(c => ({
      id: c.id,
      picked: c.picked,
      name: `${placeText(job, panel, c)} ${c.label || 'unlabelled'}`,
    })),
  )
  const unpicked = circuits
    .filter(c => !c.picked && wants.some(w => w.circuitIds.includes(c.id)))
    .map(c => c.id)
  const set = (next: Want[]) => {
    const [fault] = act({ op: 'answerBrief', answers: { wants: next } })
    return fault ? [{ ...fault, message: `What must live ${fault.message}` }] : []
  }
  const add = (what: string) => set([...wants, { id: crypto.randomUUID(), name: what, circuitIds: [] }])
  const move = (from: number, to: number) => set(moved(wants, from, to))
  return (
    <Column spacing={1}>
      <b>What must stay alive, the most important first?</b>
      <List disablePadding component="ol" aria-label="What must live">
        <Sortable items={wants} nameOf={w => w.name} onMove={move}>
          {(w, i) => (
            <SortableItem key={w.id} id={w.id} name={w.name}>
              {(grip, bind) => (
                <ListItem {...bind} disableGutters disablePadding divider sx={{ py: 0.5 }}>
                  {grip}
                  <Box sx={{ flex: 1, minWidth: 0, overflowWrap: 'anywhere' }}>
                    {i + 1}. {w.name}
                    <Select
                      variant="standard"
                      displayEmpty
                      fullWidth
                      value={w.circuitIds[0] ?? ''}
                      inputProps={{ 'aria-label': `Circuit that carries ${w.name}` }}
                      onChange={e =>
                        set(
                          wants.map(o =>
                            o === w ? { ...w, circuitIds: e.target.value ? [e.target.value] : [] } : o,
                          ),
                        )
                      }
                    >
                      <MenuItem value="">circuit not known yet</MenuItem>
                      {circuits.map(c => (
                        <MenuItem key={c.id} value={c.id}>
                          {c.name}
                        </MenuItem>
                      ))}
                    </Select>
                  </Box>
                  <Tool
                    label={`${w.name}: more important`}
                    disabled={i === 0}
                    onClick={() => move(i, i - 1)}
                    icon={ArrowUp}
                  />
                  <Tool
                    label={`${w.name}: less important`}
                    disabled={i === wants.length - 1}
                    onClick={() => move(i, i + 1)}
                    icon={ArrowDown}
                  />
                  <Tool
                    label={`Take ${w.name} off the list`}
                    onClick={() => set(wants.filter(o => o !== w))}
                    icon={X}
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
      <AddLine label="Add to the list" most={60} onAdd={add} />
      <Row spacing={0.5}>
        {likelyWants(brief).map(what => (
          <Button
            key={what}
            size="small"
            startIcon={<Plus size={15} aria-hidden />}
            onClick={() => add(what)}
          >
            {what}
          </Button>
        ))}
      </Row>
    </Column>
  )
}
