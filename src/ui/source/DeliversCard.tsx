import type { Delivered } from '@/core/assess/delivers'
import { DataTable } from '../common/DataTable'
import { Card, FigureLink, Quiet } from '../common/pieces'
import { useWorkspace } from '../workspace/store'

/** What the source delivers: energy, power, and what its settings do to each other. Every figure opens its working. */
export function DeliversCard() {
  const delivers = useWorkspace(s => s.evaluation.delivers)
  if (!delivers) return null
  return (
    <Card title="What it delivers">
      <Rows title="Energy" rows={delivers.energy} />
      <Rows title="Power" rows={delivers.power} />
      {delivers.mind.length > 0 && (
        <ul aria-label="What to mind">
          {[...new Set(delivers.mind)].map(m => (
            <li key={m}>{m}</li>
          ))}
        </ul>
      )}
    </Card>
  )
}

/** Lines of what is delivered or taken; a figure with a working is a button. */
export function Rows({ title, rows }: { title: string; rows: readonly Delivered[] }) {
  const showWorking = useWorkspace(s => s.showWorking)
  if (!rows.length) return null
  return (
    <DataTable
      label={title}
      rows={rows}
      idOf={(r, n) => `${r.label} ${n}`}
      columns={[
        {
          head: <b>{title}</b>,
          names: true,
          sx: { fontWeight: 400 },
          cell: r => (
            <>
              {r.label}
              {r.note && <Quiet>{r.note}</Quiet>}
            </>
          ),
        },
        {
          head: ' ',
          figure: true,
          sx: { fontWeight: 650 },
          cell: ({ working, value }) =>
            working ? <FigureLink onClick={() => showWorking(working)}>{value}</FigureLink> : value,
        },
      ]}
    />
  )
}
