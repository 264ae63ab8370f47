import { useMemo } from 'react'
import { inEdition, workingIn } from '@/core/articles'
import { farOutlets } from '@/core/assess/far-outlets'
import type { Job } from '@/core/job/schema'
import { quantity } from '@/core/units/format'
import { DataTable } from '../common/DataTable'
import { Card, FigureLink, Quiet } from '../common/pieces'
import { useWorkspace } from '../workspace/store'

/** Volts at the last outlet of the circuits whose length is known, with all that hangs on them running from the source. */
export function FarOutletsCard({ job }: { job: Job }) {
  const drop = useWorkspace(s => s.evaluation.path?.result.dropFraction)
  const showWorking = useWorkspace(s => s.showWorking)
  const far = useMemo(() => farOutlets(job, drop), [job, drop])
  return (
    <Card title="Volts at the last outlet">
      {far.length ? (
        <DataTable
          label="Volts at the last outlet"
          rows={far}
          stacked="labelled"
          idOf={f => f.circuitId}
          columns={[
            { head: 'Circuit', names: true, cell: f => f.name },
            { head: 'One way', figure: true, cell: f => quantity(f.oneWayFt, 'ft') },
            { head: 'Runs', figure: true, cell: f => quantity(f.currentA, 'A') },
            { head: 'At its panel', figure: true, cell: f => quantity(f.atPanelV, 'V') },
            {
              head: 'At the outlet',
              figure: true,
              cell: f => (
                <FigureLink
                  label={`Volts at the last outlet of ${f.name}`}
                  onClick={() => showWorking(workingIn(f.working, job.edition))}
                >
                  {quantity(f.farV, 'V')}
                </FigureLink>
              ),
            },
            {
              head: 'Dropped',
              figure: true,
              cell: f => `${quantity(f.dropFraction, 'fraction')}${f.beyond ? ', over 5 %' : ''}`,
            },
          ]}
        />
      ) : (
        <Quiet>
          No picked circuit has a length yet: enter it with the circuit, under Panel. Five per cent for the
          whole way are advised ({inEdition('NEC 210.19(A), informational note 4', job.edition)}).
        </Quiet>
      )}
    </Card>
  )
}
