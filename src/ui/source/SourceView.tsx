'use client'
import { Button } from '@mui/material'
import { Plus } from 'lucide-react'
import dynamic from 'next/dynamic'
import { useState } from 'react'
import { bankFor } from '@/core/assess/arrangement-ways'
import { type Equipment, ofKind } from '@/core/equipment'
import type { UnitEquipment } from '@/core/equipment/source-kinds'
import { likelyOwned, ownedFirst } from '@/core/source/owned'
import { Columns, Empty, Row, View } from '../common/pieces'
import { FindingsHere } from '../findings/FindingsHere'
import { useWorkspace } from '../workspace/store'
import { Arrangements } from './Arrangements'
import { DeliversCard } from './DeliversCard'
import { InputsCard } from './InputsCard'
import { LegsBoard } from './LegsBoard'
import { UnitCard } from './UnitCard'

const EquipmentPicker = dynamic(() => import('../equipment/EquipmentPicker').then(m => m.EquipmentPicker))

/** What the job is fed from: units, what they deliver, how the legs are arranged, what charges them. */
export function SourceView({ catalogue }: { catalogue: Equipment[] }) {
  const source = useWorkspace(s => s.job.source)
  const brief = useWorkspace(s => s.job.brief)
  const owns = useWorkspace(s =>
    s.job.brief.station === 'yes' ? (s.job.brief.stationWhat ?? 'a station') : null,
  )
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const [picking, setPicking] = useState<'first' | 'more' | null>(null)
  const all: UnitEquipment[] = [
    ...ofKind(catalogue, 'station'),
    ...ofKind(catalogue, 'inverter'),
    ...ofKind(catalogue, 'vehicle-outlet'),
    ...ofKind(catalogue, 'generator'),
  ]
  const heads = ownedFirst(all, brief)
  const pick = (equipment: Equipment) => {
    const unit = heads.find(h => h.id === equipment.id)
    if (!unit) return
    const bank = unit.kind === 'inverter' ? bankFor(unit.batteryV, catalogue) : undefined
    const faults =
      picking === 'more' && source
        ? act({
            op: 'addUnit',
            unit: {
              id: source.units.some(u => u.id === 'u2') ? 'u1' : 'u2',
              equipment: unit,
              expansionUnits: 0,
              owned: likelyOwned(unit, brief),
              ...(bank && { bank }),
            },
          })
        : act({ op: 'chooseUnit', equipment: unit, owned: likelyOwned(unit, brief), ...(bank && { bank }) })
    if (faults[0]) say(faults[0].message)
    setPicking(null)
  }
  return (
    <View title="Source">
      {!source && (
        <Empty>
          <p>
            No source is chosen yet.{' '}
            {owns
              ? `The customer has ${owns}: look for it first.`
              : 'What the customer already owns comes first.'}
          </p>
          <Button
            variant="contained"
            startIcon={<Plus size={18} aria-hidden />}
            onClick={() => setPicking('first')}
          >
            Choose a source
          </Button>
        </Empty>
      )}
      {source && (
        <>
          <Columns least={300} id="units">
            {source.units.map(unit => (
              <UnitCard
                key={unit.id}
                unit={unit}
                newest={catalogue.find(c => c.id === unit.equipment.id)}
                banks={ofKind(catalogue, 'bank')}
              />
            ))}
            <Row>
              <Button onClick={() => setPicking('first')}>Choose another source</Button>
              {source.units.length < 2 && (
                <Button startIcon={<Plus size={18} aria-hidden />} onClick={() => setPicking('more')}>
                  Add a unit
                </Button>
              )}
            </Row>
          </Columns>
          <Columns least={380}>
            <Arrangements source={source} catalogue={catalogue} />
            <LegsBoard />
          </Columns>
          <Columns least={380}>
            <DeliversCard />
            <InputsCard source={source} catalogue={catalogue} />
          </Columns>
        </>
      )}
      <FindingsHere view="source" />
      {picking && (
        <EquipmentPicker
          title={picking === 'first' ? 'Choose a source' : 'Add a unit'}
          items={heads}
          note={item =>
            heads.some(h => h.id === item.id && likelyOwned(h, brief)) ? 'the customer may have it' : ''
          }
          onPick={pick}
          onClose={() => setPicking(null)}
        />
      )}
    </View>
  )
}
