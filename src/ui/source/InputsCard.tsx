'use client'
import Button from '@mui/material/Button'
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
import { Choice } from '../common/Choice'
import { useWorkspace } from '../workspace/store'
import { Rows } from './DeliversCard'
import styles from './SourceView.module.css'

const EquipmentPicker = dynamic(() => import('../equipment/EquipmentPicker').then(m => m.EquipmentPicker))
const FactsDialog = dynamic(() => import('../common/FactsDialog').then(m => m.FactsDialog))

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
    <section className={styles.group} aria-label="What charges it, and where it stands">
      <h2>What charges it, and where it stands</h2>
      <Rows title="Inputs" rows={inputs ?? []} />
      <div className={styles.inputs} id="charging">
        <Choice
          label="Charged from the house"
          value={charging?.from ?? ''}
          options={[
            ...(charging ? [] : [{ value: '' as const, label: 'not said' }]),
            ...chargingWays.map(value => ({ value, label: value })),
          ]}
          onChange={from => {
            if (from) act({ op: 'setSource', facts: { charging: { ...charging, from } } })
          }}
        />
        {modes.length > 0 && (
          <Choice
            label="Charge mode"
            value={charging?.mode ?? ''}
            options={[{ value: '', label: 'not chosen' }, ...modes.map(m => ({ value: m, label: m }))]}
            onChange={mode =>
              act({
                op: 'setSource',
                facts: { charging: { from: charging?.from ?? 'not from the panel', ...(mode && { mode }) } },
              })
            }
          />
        )}
      </div>
      <ul className={styles.parts}>
        {source.arrays?.map(array => (
          <li key={array.id} id={`array-${array.id}`}>
            <span>
              {array.series} in series × {array.parallel}: {array.module.name}
              <small>on the {source.units.find(u => u.id === array.unitId)?.equipment.name}</small>
            </span>
            <Button size="small" onClick={() => setOpen({ what: 'array', array })}>
              Change
            </Button>
            <Button size="small" onClick={() => act({ op: 'removeArray', arrayId: array.id })}>
              Take away
            </Button>
          </li>
        ))}
        {generator && (
          <li id="generator">
            <span>
              {generator.equipment.name}, {generator.where}
              <small>
                {quantity(generator.gallons, 'gal')} kept
                {generator.fromH !== undefined && ` · ${generator.fromH}:00 to ${generator.toH ?? 24}:00`}
              </small>
            </span>
            <Button size="small" onClick={() => setOpen({ what: 'generator' })}>
              Change
            </Button>
            <Button size="small" onClick={() => act({ op: 'setSource', facts: {}, clear: ['generator'] })}>
              Take away
            </Button>
          </li>
        )}
        <li id="stands">
          <span>
            {stands
              ? `Stands ${stands.exposure === 'unknown' ? 'nobody said where' : stands.exposure}`
              : 'Where it stands is not said'}
            <small>
              {stands?.coldestC === undefined
                ? 'how cold it gets is not said'
                : `down to ${quantity(stands.coldestC, 'C')}`}
            </small>
          </span>
          <Button size="small" onClick={() => setOpen({ what: 'stands' })}>
            Change
          </Button>
        </li>
      </ul>
      <div className={styles.more}>
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
      </div>
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
            <Choice
              label="On the input of"
              value={open.array.unitId}
              options={sunny.map(u => ({ value: u.id, label: `${u.equipment.name}, ${u.id}` }))}
              onChange={unitId => setOpen({ what: 'array', array: { ...open.array, unitId } })}
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
    </section>
  )
}
