import {
  Box,
  Button,
  Table,
  TableBody,
  TableCell,
  TableContainer,
  TableHead,
  TableRow,
  Typography,
} from '@mui/material'
import dynamic from 'next/dynamic'
import { useDeferredValue, useMemo, useState } from 'react'
import { compareMethods, type MethodHere, type Range } from '@/core/assess/compare-methods'
import type { Equipment } from '@/core/equipment'
import { hookupDevices } from '@/core/hookup/design'
import { type Labour, labourSchema } from '@/core/hookup/labour'
import { plural, quantity } from '@/core/units/format'
import type { UnitOfMeasure } from '@/core/working'
import { call } from '../api'
import { Card, Quiet, Row } from '../common/pieces'
import { SeverityTag } from '../common/SeverityTag'
import { useWorkspace } from '../workspace/store'
import styles from './Hookup.module.css'

const range = ({ least, most }: Range, unit: UnitOfMeasure) =>
  Math.round(least) === Math.round(most)
    ? quantity(most, unit)
    : `${quantity(least, unit)} to ${quantity(most, unit)}`

/** Seconds as people say them. */
const duration = (seconds: number) =>
  seconds < 90 ? `${Math.round(seconds)} s` : `${Math.round(seconds / 60)} min`

const FactsDialog = dynamic(() => import('../form/FactsDialog').then(m => m.FactsDialog))

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
    <TableRow>
      <TableCell component="th" scope="row">
        {title}
      </TableCell>
      {methods.map(m => (
        <TableCell key={m.method} data-chosen={m.chosen}>
          {cell(m)}
        </TableCell>
      ))}
    </TableRow>
  )
  return (
    <Card
      title="Methods on this house"
      id="method"
      tools={
        <Button size="small" onClick={() => setEditing(true)}>
          Hours of the firm
        </Button>
      }
    >
      <Quiet>
        From this job’s circuits, panel and source. Hours are the firm’s own, ours where it gave none; small
        parts and seconds are our estimates; devices at the firm’s prices, and nothing for what is there
        already.
      </Quiet>
      <TableContainer className={styles.methods}>
        <Table aria-label="Methods side by side">
          <TableHead>
            <TableRow>
              <TableCell scope="col">
                <span className="visually-hidden">What is compared</span>
              </TableCell>
              {methods.map(m => (
                <TableCell key={m.method} scope="col" data-chosen={m.chosen} data-method={m.method}>
                  <b>{m.short}</b>
                  <Typography variant="mini" component="div" sx={{ minHeight: 20, fontWeight: 700 }}>
                    {m.recommended && <Box sx={{ color: 'primary.main' }}>recommended</Box>}
                    {m.chosen && '■ planned'}
                  </Typography>
                </TableCell>
              ))}
            </TableRow>
          </TableHead>
          <TableBody>
            {row('Why, or why not', m => m.reason)}
            {row('Picked circuits', m => (
              <span title={m.unserved.length ? `Not: ${m.unserved.join(', ')}` : undefined}>
                <b>{m.served.length}</b> of {m.served.length + m.unserved.length}
              </span>
            ))}
            {row('240 V', m => (m.of240 ? `${m.serves240} of ${m.of240}` : 'none picked'))}
            {row('Findings of its own', m => (
              <Row spacing={0.5}>
                {(['stop', 'fix', 'mind'] as const).map(s =>
                  m.findings[s] ? <SeverityTag key={s} severity={s} count={m.findings[s]} /> : null,
                )}
                {!m.findings.stop && !m.findings.fix && !m.findings.mind && 'none'}
              </Row>
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
                <Quiet component="span">planned</Quiet>
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
          </TableBody>
        </Table>
      </TableContainer>
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
    </Card>
  )
}
