import { Alert, Box } from '@mui/material'
import { X } from 'lucide-react'
import type { DraftOption } from '@/core/estimate/draft'
import { optionNameSchema } from '@/core/estimate/draft-words'
import { moneyText } from '@/core/estimate/money'
import type { Priced } from '@/core/estimate/priced'
import type { OptionMade } from '@/core/estimate/shown'
import type { Fault } from '@/core/outcome'
import { plural, together } from '@/core/units/format'
import { DataTable } from '../common/DataTable'
import { Fold } from '../common/Fold'
import { Card, Quiet } from '../common/pieces'
import { Tool } from '../common/Tool'
import { EditField, readText } from '../form/EditField'

const origins = {
  design: 'the design at hand',
  found: 'a design that was found',
  job: 'a copy of the job',
} as const

interface Props {
  option: DraftOption
  /** first, second, third */
  place: number
  made: OptionMade | null
  price: Priced | null
  onName: (name: string) => Promise<Fault[]>
  onRemove: () => void
}

/** An option: what it keeps alive, what it costs, on what that rests; and every line behind it. */
export function OptionCard({ option, place, made, price, onName, onRemove }: Props) {
  return (
    <Card
      level={3}
      title={`Option ${place}`}
      tools={<Tool label={`Take the option ${option.name} away`} onClick={onRemove} icon={X} />}
      data-option={option.id}
    >
      <EditField
        label="Name for the customer"
        value={option.name}
        read={readText(optionNameSchema)}
        onCommit={name => {
          void onName(name)
          return []
        }}
      />
      <Quiet>From {origins[option.from.kind]}</Quiet>
      {made && <p>{made.promise.sentence}</p>}
      {price && (
        <Box sx={{ typography: 'h2' }} data-total>
          {moneyText(price.total)}
        </Box>
      )}
      {made && (
        <Quiet>
          From the {made.basis}
          {made.unpriced.length > 0 &&
            `; without a price, in at their usual range: ${together(made.unpriced.slice(0, 4))}${made.unpriced.length > 4 ? ` and ${made.unpriced.length - 4} more` : ''}`}
          .
        </Quiet>
      )}
      {made && made.stops.length > 0 && (
        <Alert severity="error">
          {plural(made.stops.length, 'finding')} that must not be: {made.stops[0]}
        </Alert>
      )}
      {price && made && (
        <Fold title="What is in it">
          {() => (
            <DataTable
              label={`What is in ${option.name}`}
              rows={price.lines}
              idOf={l => l.key}
              columns={[
                {
                  head: 'What',
                  cell: l => (
                    <>
                      {l.name}
                      {l.amount && <Quiet component="span"> {l.amount}</Quiet>}
                    </>
                  ),
                },
                {
                  head: 'Costs us',
                  figure: true,
                  cell: l => {
                    const cost = made.costs.find(c => c.key === l.key)
                    return cost ? (
                      <>
                        {moneyText(cost.cents)}
                        <Quiet>{cost.from}</Quiet>
                      </>
                    ) : (
                      ''
                    )
                  },
                },
                { head: 'Price', figure: true, cell: l => moneyText(l.cents) },
              ]}
            />
          )}
        </Fold>
      )}
    </Card>
  )
}
