import { Button, List, ListItem, ListItemText } from '@mui/material'
import { Plus } from 'lucide-react'
import dynamic from 'next/dynamic'
import { useState } from 'react'
import { type Equipment, ofKind } from '@/core/equipment'
import { fieldsOf } from '@/core/field'
import {
  arraySchema,
  chargingWays,
  rangeExtenderSchema,
  type SolarArray,
  type Source,
  solarInputOf,
  standsSchema,
} from '@/core/source/design'
import { quantity } from '@/core/units/format'
import { Card, Columns, Row } from '../common/pieces'
import { Choice } from '../form/Choice'
import { ChoiceField } from '../form/inputs'
import { useWorkspace } from '../workspace/store'
import { Rows } from './DeliversCard'

const EquipmentPicker = dynamic(() => import('../equipment/EquipmentPicker').then(m => m.EquipmentPicker))
const FactsDialog = dynamic(() => import('../form/FactsDialog').then(m => m.FactsDialog))

type Open =
  | { what: 'stands' }
  | { what: 'generator' }
  | { what: 'array'; array: SolarArray }
  | { what: 'pick generator' }
  | { what: 'pick module' }
  | null

const without = (schema: Parameters<typeof fieldsOf>[0], keys: readonly string[]) =>
  fieldsOf(schema).filter(f => !keys.includes(f.key))

/** What charges the source, and where it stands. */
export function InputsCard({ source, catalogue }: { source: Source; catalogue: Equipment[] }) {
  const act = useWorkspace(s => s.act)
  const inputs = useWorkspace(s => s.evaluation.delivers?.inputs)
  const [open, setOpen] = useState<Open>(null)
  const { generator, charging, stands } = source
  const sunny = source.units.filter(u => solarInputOf(u.equipment))
  const modes = [
    ...new Set(
      source.units.flatMap(u =>
        u.equipment.kind === 'station' ? (u.equipment.chargeModes?.map(m => m.name) ?? []) : [],
      ),
    ),
  ]
  const close = () => setOpen(null)
  return (
    <Card title="What charges it, and where it stands">
      <Rows title="Inputs" rows={inputs ?? []} />
      <Columns id="charging">
        <Choice
          label="Charged from the house"
          value={charging?.from ?? ''}
          options={[...(charging ? [] : [{ value: '' as const, label: 'not said' }]), ...chargingWays]}
          onChange={from => {
            if (from) act({ op: 'setSource', facts: { charging: { ...charging, from } } })
          }}
        />
        {modes.length > 0 && (
          <Choice
            label="Charge mode"
            value={charging?.mode ?? ''}
            options={[{ value: '', label: 'not chosen' }, ...modes]}
            onChange={mode =>
              act({
                op: 'setSource',
                facts: { charging: { from: charging?.from ?? 'not from the panel', ...(mode && { mode }) } },
              })
            }
          />
        )}
      </Columns>
      <List disablePadding>
        {source.arrays?.map(array => (
          <Part
            key={array.id}
            id={`array-${array.id}`}
            what={`${array.series} in series × ${array.parallel}: ${array.module.name}`}
            more={`on the ${source.units.find(u => u.id === array.unitId)?.equipment.name}`}
            onChange={() => setOpen({ what: 'array', array })}
            onTakeAway={() => act({ op: 'removeArray', arrayId: array.id })}
          />
        ))}
        {generator && (
          <Part
            id="generator"
            what={`${generator.equipment.name}, ${generator.where}`}
            more={`${quantity(generator.gallons, 'gal')} kept${
              generator.fromH === undefined ? '' : ` · ${generator.fromH}:00 to ${generator.toH ?? 24}:00`
            }`}
            onChange={() => setOpen({ what: 'generator' })}
            onTakeAway={() => act({ op: 'setSource', facts: {}, clear: ['generator'] })}
          />
        )}
        <Part
          id="stands"
          what={
            stands
              ? `Stands ${stands.exposure === 'unknown' ? 'nobody said where' : stands.exposure}`
              : 'Where it stands is not said'
          }
          more={
            stands?.coldestC === undefined
              ? 'how cold it gets is not said'
              : `down to ${quantity(stands.coldestC, 'C')}`
          }
          onChange={() => setOpen({ what: 'stands' })}
        />
      </List>
      <Row>
        {sunny.length > 0 && (
          <Button
            size="small"
            startIcon={<Plus size={16} aria-hidden />}
            onClick={() => setOpen({ what: 'pick module' })}
          >
            Solar modules
          </Button>
        )}
        {!generator && (
          <Button
            size="small"
            startIcon={<Plus size={16} aria-hidden />}
            onClick={() => setOpen({ what: 'pick generator' })}
          >
            Generator
          </Button>
        )}
      </Row>
      {open?.what === 'pick generator' && (
        <EquipmentPicker
          title="A generator that charges it"
          items={ofKind(catalogue, 'generator')}
          onPick={item => {
            const equipment = ofKind(catalogue, 'generator').find(g => g.id === item.id)
            if (equipment)
              act({
                op: 'putGenerator',
                generator: { equipment, gallons: 5, where: 'outdoors', owned: false },
              })
            close()
          }}
          onClose={close}
        />
      )}
      {open?.what === 'pick module' && (
        <EquipmentPicker
          title="Solar modules"
          items={ofKind(catalogue, 'solar-module')}
          onPick={item => {
            const module = ofKind(catalogue, 'solar-module').find(g => g.id === item.id)
            const [unit] = sunny
            if (!module || !unit) return close()
            const n = (source.arrays?.length ?? 0) + 1
            const array = {
              id: `a${Date.now()}-${n}`,
              unitId: unit.id,
              module,
              series: 1,
              parallel: 1,
              owned: false,
            }
            setOpen({ what: 'array', array })
          }}
          onClose={close}
        />
      )}
      {open?.what === 'array' && (
        <FactsDialog
          title={open.array.module.name}
          schema={arraySchema}
          fields={without(arraySchema, ['id', 'unitId', 'module', 'owned'])}
          draft={{ ...open.array }}
          save="Keep"
          onSave={value => act({ op: 'putArray', array: arraySchema.parse(value) })}
          onClose={close}
        >
          {sunny.length > 1 && (
            <ChoiceField
              name="unitId"
              label="On the input of"
              options={sunny.map(u => ({ value: u.id, label: `${u.equipment.name}, ${u.id}` }))}
            />
          )}
        </FactsDialog>
      )}
      {open?.what === 'generator' && generator && (
        <FactsDialog
          title={generator.equipment.name}
          schema={rangeExtenderSchema}
          fields={without(rangeExtenderSchema, ['equipment', 'owned'])}
          draft={{ ...generator }}
          save="Keep"
          onSave={value => act({ op: 'putGenerator', generator: rangeExtenderSchema.parse(value) })}
          onClose={close}
        />
      )}
      {open?.what === 'stands' && (
        <FactsDialog
          title="Where it stands"
          schema={standsSchema}
          draft={{ ...(stands ?? { exposure: 'indoors' }) }}
          save="Keep"
          onSave={value => act({ op: 'setSource', facts: { stands: standsSchema.parse(value) } })}
          onClose={close}
        />
      )}
    </Card>
  )
}

interface PartProps {
  /** what findings point at */
  id: string
  what: string
  more: string
  onChange: () => void
  onTakeAway?: () => void
}

/** One thing that charges it, or the place where it stands. */
const Part = ({ id, what, more, onChange, onTakeAway }: PartProps) => (
  <ListItem id={id} disableGutters divider>
    <ListItemText primary={what} secondary={more} />
    <Button size="small" onClick={onChange}>
      Change
    </Button>
    {onTakeAway && (
      <Button size="small" onClick={onTakeAway}>
        Take away
      </Button>
    )}
  </ListItem>
)
