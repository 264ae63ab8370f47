import { TextField } from '@mui/material'
import Link from 'next/link'
import { useState } from 'react'
import { type Equipment, kindName } from '@/core/equipment'
import { findEquipment, headlineOf } from '@/core/equipment/sheet'
import { quantity, sentenceStart } from '@/core/units/format'
import { PickList } from '../common/PickList'
import { Popup } from '../common/Popup'
import { Quiet } from '../common/pieces'

/** One item of the catalogue, found by any word. */
export function EquipmentPicker<T extends Equipment>({
  title,
  items,
  note,
  onPick,
  onClose,
}: {
  title: string
  items: readonly T[]
  /** a word beside an item, or nothing */
  note?: (item: T) => string
  onPick: (item: T) => void
  onClose: () => void
}) {
  const [asked, setAsked] = useState('')
  const ids = new Set(findEquipment(items, asked).map(i => i.id))
  const found = items.filter(i => ids.has(i.id))
  return (
    <Popup title={title} onClose={onClose}>
      <TextField
        label="Find equipment"
        value={asked}
        autoFocus
        onChange={e => setAsked(e.target.value)}
        slotProps={{ htmlInput: { autoComplete: 'off' } }}
      />
      <PickList
        items={found}
        idOf={item => item.id}
        first={item => (
          <>
            <b>{item.name}</b>{' '}
            <Quiet component="span">
              {[note?.(item), sentenceStart(kindName[item.kind])].filter(Boolean).join(' · ')}
            </Quiet>
          </>
        )}
        second={item =>
          `${headlineOf(item)}${item.price === undefined ? '' : ` · ${quantity(item.price, '$')}`}`
        }
        onPick={onPick}
      />
      {!found.length && (
        <Quiet>
          Nothing in the catalogue answers. <Link href="/equipment">Enter it from its datasheet</Link>.
        </Quiet>
      )}
    </Popup>
  )
}
