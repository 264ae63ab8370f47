'use client'
import Button from '@mui/material/Button'
import dynamic from 'next/dynamic'
import { useDeferredValue, useMemo, useState } from 'react'
import type { Equipment } from '@/core/equipment'
import { compareMethods, type MethodHere, type Range } from '@/core/hookup/compare'
import { hookupDevices } from '@/core/hookup/design'
import { type Labour, labourSchema } from '@/core/hookup/labour'
import { plural, quantity } from '@/core/units/format'
import type { Unit } from '@/core/working'
import { call } from '../api'
import { SeverityTag } from '../common/SeverityTag'
import { useWorkspace } from '../workspace/store'
import styles from './Hookup.module.css'

const range = ({ least, most }: Range, unit: Unit) =>
  Math.round(least) === Math.round(most)
    ? quantity(most, unit)
    : `${quantity(least, unit)} to ${quantity(most, unit)}`

/** Seconds as people say them. */
const duration = (seconds: number) =>
  seconds < 90 ? `${Math.round(seconds)} s` : `${Math.round(seconds / 60)} min`

const FactsDialog = dynamic(() => import('../common/FactsDialog').then(m => m.FactsDialog))

/** The firm's hours, and the version that a change names. */
export interface Hours {
  labour: Labour
  version: number
}

/** Every method on this house, the recommended one first, and for each of the rest the reason against. */
export function MethodsTable({ catalogue, hours: given }: { catalogue: Equipment[]; hours: Hours }) {
  // the picture of all methods may lag a tap behind; the balance never does
  const job = useDeferredValue(useWorkspace(s => s.job))
  const [hours, setHours] = useState(given)
  const [editing, setEditing] = useState(false)
  const methods = useMemo(() => compareMethods(job, catalogue, hours.labour), [job, catalogue, hours])
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const choose = (m: MethodHere) => {
    const { method, ...facts } = m.facts
    const [fault] = act({
      op: 'setHookup',
      facts: { method: method ?? m.method, ...facts },
      ...(m.chosen
        ? {}
        : {
            clear: ([...hookupDevices, 'backfed', 'path', 'positions', 'intercepts'] as const).filter(
              key => !(key in facts) && !job.hookup.exists?.some(there => there === key),
            ),
          }),
    })
    say(fault ? fault.message : `Planned: ${m.name}. Undo takes it back.`)
  }
  const row = (title: string, cell: (m: MethodHere) => React.ReactNode) => (
    <tr>
      <th scope="row">{title}</th>
      {methods.map(m => (
        <td key={m.method} data-chosen={m.chosen}>
          {cell(m)}
        </td>
      ))}
    </tr>
  )
  return (
    <section className={styles.card} aria-label="Methods on this house" id="method">
      <div className={styles.titled}>
        <h2>Methods on this house</h2>
        <Button size="small" onClick={() => setEditing(true)}>
          Hours of the firm
        </Button>
      </div>
      <p className={styles.quiet}>
        From this job’s circuits, panel and source. Hours are the firm’s own, ours where it gave none; small
        parts and seconds are our estimates; devices at the firm’s prices, and nothing for what is there
        already.
      </p>
      <div className={styles.scroll}>
        <table className={styles.methods}>
          <thead>
            <tr>
              <th scope="col">
                <span className={styles.srOnly}>What is compared</span>
              </th>
              {methods.map(m => (
                <th key={m.method} scope="col" data-chosen={m.chosen} data-method={m.method}>
                  <span className={styles.name}>{m.short}</span>
                  <span className={styles.tags}>
                    {m.recommended && <b className={styles.best}>recommended</b>}
                    {m.chosen && <b className={styles.chosen}>planned</b>}
                  </span>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {row('Why, or why not', m => m.reason)}
            {row('Picked circuits', m => (
              <span title={m.unserved.length ? `Not: ${m.unserved.join(', ')}` : undefined}>
                <b>{m.served.length}</b> of {m.served.length + m.unserved.length}
              </span>
            ))}
            {row('240 V', m => (m.of240 ? `${m.serves240} of ${m.of240}` : 'none picked'))}
            {row('Findings of its own', m => (
              <span className={styles.severities}>
                {(['stop', 'fix', 'mind'] as const).map(s =>
                  m.findings[s] ? <SeverityTag key={s} severity={s} count={m.findings[s]} /> : null,
                )}
                {!m.findings.stop && !m.findings.fix && !m.findings.mind && 'none'}
              </span>
            ))}
            {row('Spaces', m => m.spaces)}
            {row('Beside the utility, daily', m => (m.dailyUse ? 'yes' : 'no'))}
            {row('Changeover', m =>
              m.automatic
                ? 'by itself'
                : `${plural(m.steps.length, 'step')}, ${duration(m.seconds.least)} to ${duration(m.seconds.most)}`,
            )}
            {row('Neutral', m => m.neutral)}
            {row('Devices', m => m.devices.join(', ') || 'none')}
            {row('Labour', m => range(m.labourHours, 'h'))}
            {row('Devices and parts', m => (m.price ? range(m.price, '$') : 'a price is missing'))}
            {row('', m =>
              m.chosen ? (
                <span className={styles.quiet}>planned</span>
              ) : (
                <Button
                  aria-label={`Plan it: ${m.short}`}
                  size="small"
                  variant={m.recommended ? 'contained' : 'outlined'}
                  onClick={() => choose(m)}
                >
                  Plan it
                </Button>
              ),
            )}
          </tbody>
        </table>
      </div>
      {editing && (
        <FactsDialog
          title="Hours of the firm, by way of connecting"
          schema={labourSchema}
          draft={{ tasks: hours.labour.tasks.map(t => ({ ...t })) }}
          save="Keep"
          onSave={async labour => {
            const answer = await call<Hours>('/api/labour', 'POST', { labour, version: hours.version })
            if (!answer.ok) return answer.faults.length ? answer.faults : answer.message
            setHours(answer.data)
            return null
          }}
          onClose={() => setEditing(false)}
        />
      )}
    </section>
  )
}
