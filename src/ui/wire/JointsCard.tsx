import { plural, quantity } from '@/core/units/format'
import { boxesOffered } from '@/core/work/wiring/boxes'
import type { WiringPlan } from '@/core/work/wiring/parts'
import { connectorsOffered } from '@/core/work/wiring/splices'
import { DataTable } from '../common/DataTable'
import { Card, Quiet } from '../common/pieces'
import { Choice } from '../form/Choice'
import { useWorkspace } from '../workspace/store'

/** With what each splice is made, and the boxes that the work puts up, by what is in them; another is chosen here, and checked. */
export function JointsCard({ plan }: { plan: WiringPlan }) {
  const act = useWorkspace(s => s.act)
  const chosen = useWorkspace(s => s.job.wiring?.joints)
  if (!plan.splices.length) return null
  const devices = new Map(plan.devices.map(d => [d.id, d]))
  const choose = (
    of: string,
    name: string,
    proposed: string,
    offered: readonly { key: string; name: string }[],
  ) => (
    <Choice
      label={`For ${name}`}
      value={chosen?.find(j => j.of === of)?.with ?? ''}
      options={[
        { value: '', label: chosen?.some(j => j.of === of) ? 'as proposed' : proposed },
        ...offered.map(o => ({ value: o.key, label: o.name })),
      ]}
      onChange={key => act({ op: 'chooseJoint', of, with: key || null })}
    />
  )
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
            {
              head: 'Chosen',
              sx: { width: 260 },
              cell: b => choose(b.name, b.name, b.box, boxesOffered),
            },
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
          {
            head: 'With',
            sx: { width: 260 },
            cell: s => choose(s.device, devices.get(s.device)?.name ?? s.device, s.name, connectorsOffered),
          },
        ]}
      />
    </Card>
  )
}
