'use client'
import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import IconButton from '@mui/material/IconButton'
import { Minus, Plus } from 'lucide-react'
import { methodIds, methodOf } from '@/core/hookup/method'
import { hookupSchema, type Job, jobArrangements } from '@/core/job/schema'
import type { Station } from '@/core/source/equipment'
import { arrangementName } from '@/core/source/legs'
import { canArrange } from '@/core/source/output'
import { quantity } from '@/core/units/format'
import { Choice } from '../common/Choice'
import { EditField, readNumber } from '../common/EditField'
import { FindingsHere } from '../findings/FindingsHere'
import { useWorkspace } from '../workspace/store'
import styles from './SourceView.module.css'

type Source = NonNullable<Job['source']>

/** Station, expansion units, arrangement, hook-up. */
export function SourceView({ stations }: { stations: Station[] }) {
  const source = useWorkspace(s => s.job.source)
  return (
    <div className={styles.view}>
      <h1>Source</h1>
      <Stations stations={stations} chosen={source?.station} />
      <div className={styles.pair}>
        <div className={styles.view}>
          {source && <Expansion source={source} />}
          <Hookup />
        </div>
        {source && <Arrangement source={source} />}
      </div>
      <FindingsHere view="source" />
    </div>
  )
}

function Stations({ stations, chosen }: { stations: Station[]; chosen: Station | undefined }) {
  const act = useWorkspace(s => s.act)
  const shown = chosen && !stations.some(s => s.id === chosen.id) ? [chosen, ...stations] : stations
  return (
    <fieldset className={styles.group}>
      <legend>Station</legend>
      <div className={styles.stations}>
        {shown.map(station => (
          <label key={station.id} className={styles.station} data-chosen={station.id === chosen?.id}>
            <input
              type="radio"
              name="station"
              checked={station.id === chosen?.id}
              onChange={() => act({ op: 'chooseStation', station })}
            />
            <span className={styles.stationName}>{station.name}</span>
            <span className={styles.volts}>{station.voltage} V</span>
            <dl>
              <div>
                <dt>Continuous</dt>
                <dd>{quantity(station.continuousW, 'W')}</dd>
              </div>
              <div>
                <dt>Surge</dt>
                <dd>{quantity(station.surgeW, 'W')}</dd>
              </div>
              <div>
                <dt>Energy</dt>
                <dd>{quantity(station.energyWh, 'Wh')}</dd>
              </div>
              <div>
                <dt>Own draw</dt>
                <dd>{quantity(station.idleW, 'W')}</dd>
              </div>
            </dl>
            <span className={styles.facts}>
              {station.outlets.map(o => (o.count > 1 ? `${o.type} ×${o.count}` : o.type)).join(', ')} ·
              neutral {station.neutral}
              {station.groundFaultOutlets && ' · ground-fault outlets'}
              {station.expansion &&
                ` · up to ${station.expansion.most} more of ${quantity(station.expansion.energyWh, 'Wh')}`}
              {station.startsLockedRotorA &&
                ` · starts ${quantity(station.startsLockedRotorA, 'A')} locked rotor`}
            </span>
          </label>
        ))}
      </div>
    </fieldset>
  )
}

function Expansion({ source }: { source: Source }) {
  const act = useWorkspace(s => s.act)
  const { expansion, name } = source.station
  const count = source.expansionUnits
  const set = (next: number) => act({ op: 'setExpansionUnits', count: next })
  return (
    <fieldset className={styles.group} id="expansionUnits">
      <legend>Expansion units</legend>
      {expansion ? (
        <div className={styles.stepper}>
          <IconButton aria-label="One unit fewer" disabled={count === 0} onClick={() => set(count - 1)}>
            <Minus size={20} aria-hidden />
          </IconButton>
          <output aria-label="Expansion units">
            {count} <small>of {expansion.most}</small>
          </output>
          <IconButton
            aria-label="One unit more"
            disabled={count === expansion.most}
            onClick={() => set(count + 1)}
          >
            <Plus size={20} aria-hidden />
          </IconButton>
          <span>{quantity(source.station.energyWh + count * expansion.energyWh, 'Wh')} in all</span>
        </div>
      ) : (
        <p>The {name} takes none.</p>
      )}
    </fieldset>
  )
}

const consequence: Record<(typeof jobArrangements)[number], string> = {
  'one-leg': 'Half of the panel is dead. Every two-pole breaker stays off.',
  tied: 'All 120 V circuits work, nothing at 240 V. Shared neutrals add instead of cancelling.',
  'split-phase': 'Everything works, within each leg’s share.',
}

function Arrangement({ source }: { source: Source }) {
  const act = useWorkspace(s => s.act)
  const standAlone = useWorkspace(s => methodOf(s.job.hookup.method).neutral === 'stand-alone')
  return (
    <fieldset className={styles.group}>
      <legend>Arrangement</legend>
      {standAlone && <p>Appliances are plugged in directly: the panel’s legs have no part in it.</p>}
      {jobArrangements.map(arrangement => {
        const can = canArrange(source.station, arrangement)
        return (
          <label key={arrangement} className={styles.arrangement} data-off={!can}>
            <input
              type="radio"
              name="arrangement"
              disabled={!can}
              checked={source.arrangement === arrangement}
              onChange={() => act({ op: 'setArrangement', arrangement })}
            />
            <span>
              <b>{arrangementName[arrangement]}</b>
              <span>
                {can
                  ? consequence[arrangement]
                  : `A ${source.station.name} puts out ${source.station.voltage} V only.`}
              </span>
            </span>
          </label>
        )
      })}
      {source.arrangement === 'one-leg' && (
        <Choice
          label="Live leg"
          value={source.liveLeg}
          options={[
            { value: 'L1', label: 'L1' },
            { value: 'L2', label: 'L2' },
          ]}
          onChange={leg =>
            act({ op: 'setArrangement', arrangement: 'one-leg', liveLeg: leg === 'L2' ? 'L2' : 'L1' })
          }
        />
      )}
    </fieldset>
  )
}

const leadIn = hookupSchema.shape.whip.unwrap().shape.leadIn
const entries = hookupSchema.shape.whip.unwrap().shape.entersAt.options

function Hookup() {
  const hookup = useWorkspace(s => s.job.hookup)
  const panels = useWorkspace(s => s.job.panels)
  const act = useWorkspace(s => s.act)
  return (
    <fieldset className={styles.group} id="method">
      <legend>Hook-up</legend>
      <div className={styles.hookup}>
        <Choice
          label="How it is connected"
          value={hookup.method}
          options={methodIds.map(value => ({ value, label: methodOf(value).name }))}
          onChange={method => act({ op: 'setHookup', facts: { method } })}
        />
        <FormControlLabel
          control={
            <Checkbox
              checked={hookup.bondingPlug}
              onChange={e => act({ op: 'setHookup', facts: { bondingPlug: e.target.checked } })}
            />
          }
          label="A bonding plug is fitted at the source"
        />
        {panels.length > 1 && (
          <Choice
            label="Tied to"
            value={hookup.panelId ?? panels[0]?.id ?? ''}
            options={panels.map(p => ({ value: p.id, label: p.name }))}
            onChange={panelId => act({ op: 'setHookup', facts: { panelId } })}
          />
        )}
        {methodOf(hookup.method).transfer === 'switch' && (
          <>
            <EditField
              label="Leads of the switch inside the panel"
              value={hookup.whip ? String(hookup.whip.leadIn) : ''}
              unit="in"
              inputMode="decimal"
              help="empty while not known; a pre-wired whip often has 18 in and more"
              read={text => (text.trim() ? readNumber(leadIn)(text) : { value: null })}
              onCommit={lead =>
                lead === null
                  ? act({ op: 'setHookup', facts: {}, clear: ['whip'] })
                  : act({
                      op: 'setHookup',
                      facts: { whip: { leadIn: lead, entersAt: hookup.whip?.entersAt ?? 'top left' } },
                    })
              }
            />
            {hookup.whip && (
              <Choice
                label="They come in at the"
                value={hookup.whip.entersAt}
                options={entries.map(value => ({ value, label: value }))}
                onChange={entersAt =>
                  act({ op: 'setHookup', facts: { whip: { leadIn: hookup.whip?.leadIn ?? 18, entersAt } } })
                }
              />
            )}
          </>
        )}
      </div>
    </fieldset>
  )
}
