import { plural, quantity } from '@/core/units/format'
import type { WiringPlan } from '@/core/work/wiring/parts'
import { DataTable } from '../common/DataTable'
import { Card, Quiet } from '../common/pieces'

/** With what each splice is made, and the boxes that the work puts up, by what is in them. */
export function JointsCard({ plan }: { plan: WiringPlan }) {
  if (!plan.splices.length) return null
  const devices = new Map(plan.devices.map(d => [d.id, d]))
  return (
    <Card
      title="Splices and boxes"
      tools={<Quiet component="span">{plural(plan.splices.length, 'splice')}</Quiet>}
    >
      {plan.boxes.length > 0 && (
        <DataTable
          label="Boxes"
          rows={plan.boxes}
          idOf={b => b.name}
          columns={[
            { head: 'Box', names: true, cell: b => b.name },
            { head: 'Chosen', cell: b => b.box },
            {
              head: 'Filled (NEC 314.16)',
              figure: true,
              cell: b => `${quantity(b.requiredIn3, 'in3')} of ${quantity(b.volumeIn3, 'in3')}`,
            },
          ]}
        />
      )}
      <DataTable
        label="Splices"
        rows={plan.splices}
        most={320}
        idOf={s => s.device}
        columns={[
          { head: 'Splice', names: true, cell: s => devices.get(s.device)?.name },
          { head: 'In', cell: s => devices.get(s.device)?.within },
          { head: 'With', cell: s => s.name },
        ]}
      />
    </Card>
  )
}
