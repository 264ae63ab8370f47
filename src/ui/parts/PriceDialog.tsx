import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material'
import { useState } from 'react'
import { quantity } from '@/core/units/format'
import type { OrderLine } from '@/core/work/parts/order'
import { type Price, priceSchema } from '@/core/work/parts/prices'
import { amountOf } from '@/core/work/parts/words'
import { DataTable } from '../common/DataTable'
import { Problem } from '../common/Problem'
import { Column, Quiet } from '../common/pieces'
import { EditField, EditFigure, readText } from '../form/EditField'
import { useFirmPartsChanges } from './useFirmParts'

interface Props {
  line: OrderLine
  known: readonly Price[]
  today: string
  onClose: () => void
}

const { quantity: inIt, priceUsd, supplier } = priceSchema.shape

/** What the book says of a part, and one more price of it, or a newer one. */
export function PriceDialog({ line, known, today, onClose }: Props) {
  const change = useFirmPartsChanges()
  const [draft, setDraft] = useState<Price>(
    known[0] ?? {
      part: line.key,
      name: line.name,
      quantity: 1,
      priceUsd: null,
      supplier: '',
      substitutes: [],
      on: today,
    },
  )
  const set = (facts: Partial<Price>) => {
    setDraft({ ...draft, ...facts })
    return []
  }
  const keep = async () => {
    await change.mutateAsync({ act: 'price', price: { ...draft, on: today } }).then(onClose, () => {})
  }
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="price-title">
      <DialogTitle id="price-title">{line.name}</DialogTitle>
      <DialogContent>
        <Column>
          {known.length > 0 ? (
            <DataTable
              label="Prices of it"
              rows={known}
              idOf={p => `${p.quantity} ${p.supplier}`}
              columns={[
                { head: 'Put-up', names: true, cell: p => amountOf(p.quantity, line.unit) },
                {
                  head: 'Price',
                  figure: true,
                  cell: p => (p.priceUsd === null ? 'ask' : quantity(p.priceUsd, '$')),
                },
                { head: 'Supplier', cell: p => p.supplier },
                { head: 'Of', cell: p => p.on },
              ]}
            />
          ) : (
            <Quiet>The book has no price of it yet.</Quiet>
          )}
          <EditFigure
            label={line.unit === 'ft' ? 'Feet in one put-up' : 'How many in one put-up'}
            value={draft.quantity}
            schema={inIt}
            onCommit={quantity => set({ quantity })}
          />
          <EditFigure
            label="Price"
            unit="$"
            value={draft.priceUsd ?? undefined}
            schema={priceUsd.unwrap()}
            help="empty: to be asked"
            onCommit={priceUsd => set({ priceUsd })}
            onEmpty={() => set({ priceUsd: null })}
          />
          <EditField
            label="Supplier"
            value={draft.supplier}
            read={readText(supplier)}
            onCommit={supplier => set({ supplier })}
          />
          {change.error && <Problem>{change.error.message}</Problem>}
        </Column>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
        <Button variant="contained" onClick={() => void keep()}>
          Keep, of today
        </Button>
      </DialogActions>
    </Dialog>
  )
}
