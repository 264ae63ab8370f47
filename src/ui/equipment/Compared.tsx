import { Button } from '@mui/material'
import type { Equipment } from '@/core/equipment'
import { compareEquipment } from '@/core/equipment/sheet'
import { DataTable } from '../common/DataTable'
import { Card, Quiet } from '../common/pieces'

/** Two to four items fact by fact; what differs stands bold, with a mark. */
export function Compared({ items, onClear }: { items: readonly Equipment[]; onClear: () => void }) {
  return (
    <Card
      aria-label="Compared"
      title="Side by side"
      tools={
        <Button size="small" onClick={onClear}>
          Put away
        </Button>
      }
    >
      <DataTable
        label="Side by side"
        rows={compareEquipment(items)}
        idOf={row => row.title + row.values.join()}
        columns={[
          {
            head: '≠ differs',
            names: true,
            sx: { fontWeight: 400 },
            cell: row => `${row.differs ? '≠ ' : ''}${row.title}`,
          },
          ...items.map((item, n) => ({
            head: <b>{item.name}</b>,
            cell: (row: ReturnType<typeof compareEquipment>[number]) =>
              row.values[n] ? (
                <span style={row.differs ? { fontWeight: 650 } : {}}>{row.values[n]}</span>
              ) : (
                <Quiet component="span">nobody said</Quiet>
              ),
          })),
        ]}
      />
    </Card>
  )
}
