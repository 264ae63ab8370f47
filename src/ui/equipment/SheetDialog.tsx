import { Button } from '@mui/material'
import { type Equipment, type EquipmentKind, equipmentKinds, kindIds, kindName } from '@/core/equipment'
import { equipmentFields } from '@/core/equipment/sheet'
import { sentenceStart } from '@/core/units/format'
import { Quiet } from '../common/pieces'
import { Choice } from '../form/Choice'
import { FactsDialog } from '../form/FactsDialog'
import type { Said } from '../form/useSheet'

export type Opened = { item: Equipment } | { kind: EquipmentKind }

const idOf = (name: string) =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 40)

/** One item of the catalogue as a datasheet gives it: entered, or changed under the next version. */
export function SheetDialog({
  open,
  onSave,
  onRetire,
  onKind,
  onClose,
}: {
  open: Opened
  onSave: (item: Equipment, from: number) => Promise<Said>
  onRetire: (item: Equipment) => void
  onKind: (kind: EquipmentKind) => void
  onClose: () => void
}) {
  const was = 'item' in open ? open.item : null
  const kind = 'item' in open ? open.item.kind : open.kind
  const fields = equipmentFields(kind).filter(f => !was || f.key !== 'id')
  return (
    <FactsDialog<Equipment>
      title={was ? `${was.name}, version ${was.version}` : `New ${kindName[kind]}`}
      schema={equipmentKinds[kind]}
      fields={fields}
      draft={was ? { ...was } : { kind, version: 1 }}
      save={was ? `Keep as version ${was.version + 1}` : 'Add to the catalogue'}
      onSave={item => onSave({ ...item, id: was?.id ?? idOf(item.id) }, was?.version ?? 0)}
      onClose={onClose}
      extra={
        was && (
          <Button color="error" onClick={() => onRetire(was)}>
            Take out of use
          </Button>
        )
      }
    >
      {was ? (
        <Quiet>
          Jobs that were designed with version {was.version} keep it; each can take the new one over.
        </Quiet>
      ) : (
        <Choice
          label="Kind"
          value={kind}
          options={kindIds.map(k => ({ value: k, label: sentenceStart(kindName[k]) }))}
          onChange={onKind}
        />
      )}
    </FactsDialog>
  )
}
