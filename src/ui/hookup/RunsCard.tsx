import { Button } from '@mui/material'
import { Plus } from 'lucide-react'
import dynamic from 'next/dynamic'
import { useState } from 'react'
import { fieldsOf } from '@/core/field'
import { type Run, runSchema } from '@/core/hookup/design'
import { plural, quantity } from '@/core/units/format'
import { conductorName } from '@/core/units/tables/conductors'
import { DataTable } from '../common/DataTable'
import { Card, Quiet } from '../common/pieces'
import { useWorkspace } from '../workspace/store'

const FactsDialog = dynamic(() => import('../form/FactsDialog').then(m => m.FactsDialog))

const usual: Omit<Run, 'id' | 'name'> = {
  breakerA: 30,
  material: 'cu',
  size: '10',
  insulationC: 75,
  conductors: 3,
  currentCarrying: 3,
  deratingKnown: false,
  groundSize: '10',
  lengthFt: 10,
}

/** Conductors, conduit and boxes as far as they are known; each run is checked. */
export function RunsCard() {
  const runs = useWorkspace(s => s.job.hookup.runs)
  const act = useWorkspace(s => s.act)
  const [open, setOpen] = useState<Partial<Run> | null>(null)
  const next = `r${(runs ?? []).reduce((most, r) => Math.max(most, Number(r.id.slice(1)) || 0), 0) + 1}`
  return (
    <Card
      aria-label="Runs"
      title="Runs: conductors, conduit, boxes"
      tools={
        <Button
          size="small"
          startIcon={<Plus size={16} aria-hidden />}
          onClick={() => setOpen({ id: next, ...usual })}
        >
          Run
        </Button>
      }
    >
      {runs?.length ? (
        <DataTable
          label="Runs"
          rows={runs}
          idOf={run => run.id}
          rowProps={run => ({ id: `run-${run.id}` })}
          columns={[
            { head: 'Run', names: true, cell: run => run.name },
            { head: 'Breaker', cell: run => `${run.breakerA} A` },
            {
              head: 'Conductors',
              cell: run =>
                `${run.conductors} × ${conductorName(run.size, run.material)}, ${run.currentCarrying} carrying`,
            },
            { head: 'Ground', cell: run => (run.groundSize ? `${run.groundSize} AWG` : 'not said') },
            { head: 'Conduit', cell: run => (run.conduit ? `${run.tradeSize} ${run.conduit}` : 'none') },
            { head: 'Length', cell: run => quantity(run.lengthFt, 'ft') },
            {
              head: '',
              cell: run => (
                <>
                  <Button size="small" onClick={() => setOpen(run)}>
                    Change
                  </Button>
                  <Button size="small" onClick={() => act({ op: 'removeRun', runId: run.id })}>
                    Take out
                  </Button>
                </>
              ),
            },
          ]}
        />
      ) : (
        <Quiet>
          No run is entered yet. {plural(0, 'run')} checked: ampacity, derating, conduit, boxes and grounds
          wait for them.
        </Quiet>
      )}
      {open && (
        <FactsDialog
          title={open.name ?? 'New run'}
          schema={runSchema}
          fields={fieldsOf(runSchema).filter(f => f.key !== 'id')}
          draft={{ ...open }}
          save="Keep"
          onSave={value => act({ op: 'putRun', run: runSchema.parse(value) })}
          onClose={() => setOpen(null)}
        />
      )}
    </Card>
  )
}
