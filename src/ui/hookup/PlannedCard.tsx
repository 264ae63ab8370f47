import { Button, Checkbox, FormControlLabel } from '@mui/material'
import dynamic from 'next/dynamic'
import { useState } from 'react'
import { type Equipment, ofKind } from '@/core/equipment'
import { type Hookup, hookupDevices, hookupSchema } from '@/core/hookup/design'
import { methodIds, methodOf } from '@/core/hookup/method'
import { besideMain } from '@/core/panel/room'
import { sentenceStart, together } from '@/core/units/format'
import { Fold } from '../common/Fold'
import { Card, Columns, Quiet, Row } from '../common/pieces'
import { Check } from '../form/Check'
import { Choice, type Option } from '../form/Choice'
import { EditFigure } from '../form/EditField'
import { useWorkspace } from '../workspace/store'

const EquipmentPicker = dynamic(() => import('../equipment/EquipmentPicker').then(m => m.EquipmentPicker))

const leadIn = hookupSchema.shape.whip.unwrap().shape.leadIn
const entries = hookupSchema.shape.whip.unwrap().shape.entersAt.options
const ratings = [15, 20, 30, 40, 50, 60]

type Device = 'switch' | 'secondSwitch' | 'managed' | 'interlock' | 'inlet'
const deviceName = (device: Device) =>
  device === 'secondSwitch'
    ? 'A second switch on the same source'
    : sentenceStart(kinds[device].replace('-', ' '))
const kinds = {
  switch: 'transfer-switch',
  secondSwitch: 'transfer-switch',
  managed: 'managed-panel',
  interlock: 'interlock',
  inlet: 'inlet',
} as const

/** The planned hook-up in its parts: device, breaker, neutral, ground, leads. */
export function PlannedCard({ catalogue }: { catalogue: Equipment[] }) {
  const hookup = useWorkspace(s => s.job.hookup)
  const panels = useWorkspace(s => s.job.panels)
  const act = useWorkspace(s => s.act)
  const [picking, setPicking] = useState<Device | null>(null)
  const method = methodOf(hookup.method)
  const set = (facts: Partial<Hookup>) => act({ op: 'setHookup', facts })
  const yes = (key: 'bondingPlug' | 'fixedCord' | 'intercepts' | 'utilityTold') => ({
    checked: hookup[key] ?? false,
    onChange: (checked: boolean) => void set({ [key]: checked }),
  })
  const panel = panels.find(p => p.id === hookup.panelId) ?? panels[0]
  const devices: Device[] =
    method.transfer === 'switch'
      ? ['switch', ...(hookup.switch && method.most !== 1 ? (['secondSwitch'] as const) : [])]
      : hookup.method === 'managed-panel'
        ? ['managed']
        : method.transfer === 'interlock'
          ? [...(method.besideMain ? (['interlock'] as const) : []), 'inlet']
          : []
  const backfed = hookup.backfed ?? { breakerA: 30, heldDown: false }
  const through = method.neutral !== 'stand-alone' && method.transfer !== 'unknown'
  return (
    <Card title="As planned">
      {method.how && <p>{method.how}</p>}
      <Columns least={200} sx={{ alignItems: 'center', '& > :first-of-type': { gridColumn: '1 / -1' } }}>
        <Choice
          label="How it is connected"
          value={hookup.method}
          options={methodIds.map(value => ({ value, label: sentenceStart(methodOf(value).name) }))}
          onChange={value => set({ method: value })}
        />
        {panels.length > 1 && (
          <Choice
            label="Tied to"
            value={hookup.panelId ?? panels[0]?.id ?? ''}
            options={panels.map(p => ({ value: p.id, label: p.name }))}
            onChange={panelId => set({ panelId })}
          />
        )}
        {devices.map(device => (
          <Row key={device} id={device} sx={{ gridColumn: '1 / -1', justifyContent: 'space-between' }}>
            <span>
              {deviceName(device)}: <b>{hookup[device]?.name ?? 'not chosen'}</b>
              {hookup[device] && <small> version {hookup[device]?.version}</small>}
            </span>
            <span>
              {hookup[device] && (
                <FormControlLabel
                  control={
                    <Checkbox
                      size="small"
                      checked={hookup.exists?.includes(device) ?? false}
                      onChange={e =>
                        set({
                          exists: hookupDevices.filter(d =>
                            d === device ? e.target.checked : hookup.exists?.includes(d),
                          ),
                        })
                      }
                    />
                  }
                  label="there already"
                  slotProps={{ typography: { variant: 'body2' } }}
                />
              )}
              <Button size="small" onClick={() => setPicking(device)}>
                {hookup[device] ? 'Change' : 'Choose'}
              </Button>
              {device === 'secondSwitch' && hookup[device] && (
                <Button
                  size="small"
                  onClick={() => act({ op: 'setHookup', facts: {}, clear: ['secondSwitch'] })}
                >
                  Take away
                </Button>
              )}
            </span>
          </Row>
        ))}
        {method.transfer === 'interlock' && panel && (
          <Columns least={200} id="backfed" sx={{ gridColumn: '1 / -1' }}>
            <Choice
              label="Backfed breaker"
              value={backfed.breakerA}
              options={ratings.map(value => ({ value, label: `${value} A, 2-pole` }))}
              onChange={breakerA => set({ backfed: { ...backfed, breakerA } })}
            />
            {method.besideMain && (
              <Choice
                label="At space"
                value={backfed.space ?? 0}
                options={[
                  { value: 0, label: 'not said' },
                  ...Array.from({ length: panel.spaces - 2 }, (_, i) => i + 1).map(value => ({
                    value,
                    label: `${value}·${value + 2}${besideMain(panel).includes(value) ? ', beside the main' : ''}`,
                  })),
                ]}
                onChange={space => {
                  const { space: _, ...rest } = backfed
                  set({ backfed: space ? { ...rest, space } : rest })
                }}
              />
            )}
            <Check
              label="Held down"
              checked={backfed.heldDown}
              onChange={checked => set({ backfed: { ...backfed, heldDown: checked } })}
            />
            <Check label="An indicator tells that the utility is back" {...yes('utilityTold')} />
          </Columns>
        )}
        {through && (
          <>
            <Said
              id="neutrals"
              fact="neutrals"
              label="Neutrals of circuits that are led away"
              options={['follow their hots', 'stay behind']}
            />
            <Said
              id="source-neutral"
              fact="sourceNeutral"
              label="Neutral of the source"
              options={[
                { value: 'lands', label: 'lands with its hots' },
                'left off',
                { value: 'unknown', label: 'not known' },
              ]}
            />
            <Said
              id="ground"
              fact="ground"
              label="Ground, the whole path"
              options={[
                'continuous',
                { value: 'interrupted', label: 'interrupted somewhere' },
                { value: 'unknown', label: 'not known' },
              ]}
            />
          </>
        )}
        {method.serves === 'moved circuits' && !hookup.intercepts && (
          <Choice
            label="Breakers in the new panel"
            value={hookup.movedPlaces ?? 'in the old order'}
            options={[
              { value: 'in the old order', label: 'in the order of the old one, on the same legs' },
              { value: 'placed anew', label: 'placed anew, for the source' },
            ]}
            onChange={movedPlaces => set({ movedPlaces })}
          />
        )}
        {hookup.method === 'sub-panel-interlock' && (
          <Check label="It stands in the feeder, and takes the whole panel over" {...yes('intercepts')} />
        )}
        <Check label="A bonding plug is fitted at the source" {...yes('bondingPlug')} />
        <Check id="cord" label="A cord is fastened or goes through a wall" {...yes('fixedCord')} />
        {method.transfer === 'switch' && (
          <Columns least={200} sx={{ gridColumn: '1 / -1' }}>
            <EditFigure
              label="Switch leads in the panel"
              value={hookup.whip?.leadIn}
              schema={leadIn}
              unit="in"
              help={
                hookup.switch?.whipIn
                  ? `its own are ${hookup.switch.whipIn} in; empty while not known`
                  : 'empty while not known'
              }
              onCommit={leadIn => set({ whip: { leadIn, entersAt: hookup.whip?.entersAt ?? 'top left' } })}
              onEmpty={() => act({ op: 'setHookup', facts: {}, clear: ['whip'] })}
            />
            {hookup.whip && (
              <Choice
                label="They come in at the"
                value={hookup.whip.entersAt}
                options={entries}
                onChange={entersAt => set({ whip: { leadIn: hookup.whip?.leadIn ?? 18, entersAt } })}
              />
            )}
          </Columns>
        )}
      </Columns>
      {method.steps && method.steps.length > 0 && (
        <Fold title={`The changeover, in ${method.steps.length} steps`}>
          {() => (
            <ol>
              {method.steps?.map(step => (
                <li key={step}>{step}</li>
              ))}
            </ol>
          )}
        </Fold>
      )}
      {method.weak && <Quiet>Weak at: {together([method.weak])}.</Quiet>}
      {picking && (
        <EquipmentPicker
          title={deviceName(picking)}
          items={ofKind(catalogue, kinds[picking])}
          onPick={item => {
            const facts = hookupSchema.shape[picking].safeParse(item)
            if (facts.success && facts.data) set({ [picking]: facts.data })
            setPicking(null)
          }}
          onClose={() => setPicking(null)}
        />
      )}
    </Card>
  )
}

type Fact = 'neutrals' | 'sourceNeutral' | 'ground'

/** A fact of the hook-up by choice; it may be left unsaid. */
function Said<K extends Fact>({
  id,
  fact,
  label,
  options,
}: {
  /** what findings point at */
  id: string
  fact: K
  label: string
  options: readonly Option<NonNullable<Hookup[K]>>[]
}) {
  const said = useWorkspace(s => s.job.hookup[fact])
  const act = useWorkspace(s => s.act)
  return (
    <div id={id}>
      <Choice<string>
        label={label}
        value={said ?? ''}
        options={[{ value: '', label: 'not said' }, ...options]}
        onChange={value =>
          act(
            value === ''
              ? { op: 'setHookup', facts: {}, clear: [fact] }
              : { op: 'setHookup', facts: { [fact]: value } },
          )
        }
      />
    </div>
  )
}
