import { Button, Typography } from '@mui/material'
import { Minus, Plus } from 'lucide-react'
import { type Equipment, kindName } from '@/core/equipment'
import type { Bank } from '@/core/equipment/source-kinds'
import { type Unit, unitSchema, voltsOf } from '@/core/source/design'
import { capacityOf, lossesOf } from '@/core/source/store'
import { quantity, sentenceStart } from '@/core/units/format'
import { Card, Column, Columns, Quiet, Row } from '../common/pieces'
import { Tool } from '../common/Tool'
import { Check } from '../form/Check'
import { Choice } from '../form/Choice'
import { EditFigure } from '../form/EditField'
import { useWorkspace } from '../workspace/store'

const fuseA = unitSchema.shape.bank.unwrap().shape.fuseA.unwrap()

/** One unit: what it is, what is added to it, whether the customer has it, and whether the catalogue moved on. */
export function UnitCard({
  unit,
  newest,
  banks,
}: {
  unit: Unit
  newest: Equipment | undefined
  banks: readonly Bank[]
}) {
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const { equipment, bank } = unit
  const setBank = (bank: NonNullable<Unit['bank']>) =>
    act({ op: 'editUnit', unitId: unit.id, facts: { bank } })
  const edit = (facts: Partial<Omit<Unit, 'id'>>) => {
    const [fault] = act({ op: 'editUnit', unitId: unit.id, facts })
    if (fault) say(`${equipment.name}: ${fault.message}`)
  }
  const parsed = newest && unitSchema.shape.equipment.safeParse(newest)
  const newer = parsed?.success && parsed.data.version > equipment.version ? parsed.data : null
  const expansion = equipment.kind === 'station' ? equipment.expansion : undefined
  const losses = lossesOf(equipment)
  const rows: [string, string][] = [
    ['Continuous', quantity(equipment.continuousW, 'W')],
    ['Surge', quantity(equipment.surgeW, 'W')],
    ['Energy', quantity(capacityOf(unit), 'Wh')],
    ['Own draw', quantity(losses.idleW, 'W')],
    ['Battery to outlet', quantity(losses.efficiencyFraction, 'fraction')],
    ['Neutral', equipment.neutral ?? 'not stated'],
  ]
  return (
    <Card
      aria-label={equipment.name}
      title={equipment.name}
      tools={
        <Quiet component="span">
          {sentenceStart(kindName[equipment.kind])}, {voltsOf(equipment)} V, version {equipment.version}
        </Quiet>
      }
      sx={{ borderTop: 5, borderTopColor: 'water.deep' }}
    >
      <Columns component="dl" least={90} sx={{ gap: 0.5 }}>
        {rows.map(([label, value]) => (
          <div key={label}>
            <Quiet component="dt">{label}</Quiet>
            <Typography component="dd" sx={{ fontWeight: 650 }}>
              {value}
            </Typography>
          </div>
        ))}
      </Columns>
      <Quiet>
        {'outlets' in equipment &&
          equipment.outlets?.map(o => (o.count > 1 ? `${o.type} ×${o.count}` : o.type)).join(', ')}
        {'groundFaultOutlets' in equipment && equipment.groundFaultOutlets && ' · ground-fault outlets'}
        {losses.assumed && ' · own draw or efficiency assumed: not in its sheet'}
      </Quiet>
      {expansion && (
        <Stepper
          label="Expansion units"
          count={unit.expansionUnits}
          most={expansion.most}
          note={`${quantity(expansion.energyWh, 'Wh')} each`}
          onSet={expansionUnits => edit({ expansionUnits })}
        />
      )}
      {bank && (
        <Column>
          {banks.length > 1 && (
            <Choice
              label="Battery"
              value={bank.equipment.id}
              options={banks.map(b => ({ value: b.id, label: b.name }))}
              onChange={id => {
                const found = banks.find(b => b.id === id)
                if (found) edit({ bank: { ...bank, equipment: found } })
              }}
            />
          )}
          <Stepper
            label={`${bank.equipment.name} in parallel`}
            count={bank.parallel}
            least={1}
            most={bank.equipment.mostParallel}
            note={`${bank.series} in series, ${quantity(bank.series * bank.equipment.unitV, 'V')}`}
            onSet={parallel => edit({ bank: { ...bank, parallel } })}
          />
          <EditFigure
            label="Fuse of the bank"
            unit="A"
            value={bank.fuseA}
            schema={fuseA}
            help="of the whole bank; empty while not known"
            onCommit={fuseA => setBank({ ...bank, fuseA })}
            onEmpty={() => {
              const { fuseA: _, ...rest } = bank
              return setBank(rest)
            }}
          />
        </Column>
      )}
      <Row sx={{ justifyContent: 'space-between' }}>
        <Check
          label="The customer owns it"
          checked={unit.owned}
          onChange={checked => edit({ owned: checked })}
        />
        <Button size="small" onClick={() => act({ op: 'removeUnit', unitId: unit.id })}>
          Take away
        </Button>
      </Row>
      {newer && (
        <p>
          The catalogue has version {newer.version}.{' '}
          <Button size="small" variant="outlined" onClick={() => edit({ equipment: newer })}>
            Take it over
          </Button>
        </p>
      )}
    </Card>
  )
}

function Stepper({
  label,
  count,
  least = 0,
  most,
  note,
  onSet,
}: {
  label: string
  count: number
  least?: number
  most: number
  note: string
  onSet: (count: number) => void
}) {
  return (
    <Row>
      <span>{label}</span>
      <Tool
        label={`${label}: one fewer`}
        disabled={count <= least}
        onClick={() => onSet(count - 1)}
        icon={Minus}
      />
      <output aria-label={label}>
        <Typography component="span" variant="h1">
          {count}
        </Typography>{' '}
        of {most}
      </output>
      <Tool
        label={`${label}: one more`}
        disabled={count >= most}
        onClick={() => onSet(count + 1)}
        icon={Plus}
      />
      <Quiet component="span">{note}</Quiet>
    </Row>
  )
}
