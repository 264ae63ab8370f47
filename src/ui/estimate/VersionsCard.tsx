import { Box, Button, List, ListItem } from '@mui/material'
import { useState } from 'react'
import { moneyText } from '@/core/estimate/money'
import type { VersionShown } from '@/core/estimate/shown'
import { changeText, headOf } from '@/core/estimate/words'
import { Card, Column, Quiet, Row } from '../common/pieces'
import { useWorkspace } from '../workspace/store'
import { LinkShown } from './LinkShown'
import { type Estimate, useEstimateChanges } from './useEstimate'

const day = (iso: string) => iso.slice(0, 10)
const states = {
  open: 'open',
  accepted: 'accepted',
  newer: 'replaced by a newer version',
  expired: 'expired',
  withdrawn: 'withdrawn',
} as const

/** What was sent, version by version: seen or not, asked about, accepted. */
export function VersionsCard({ estimate: { versions } }: { estimate: Estimate }) {
  if (!versions.length) return null
  return (
    <Card title="Sent">
      <List disablePadding>
        {versions.map(v => (
          <ListItem key={v.n} disableGutters divider data-version={v.n} data-state={v.state}>
            <Version version={v} />
          </ListItem>
        ))}
      </List>
    </Card>
  )
}

function Version({ version: v }: { version: VersionShown }) {
  const id = useWorkspace(s => s.id)
  const change = useEstimateChanges()
  const { acceptance } = v
  const [token, setToken] = useState<string | null>(null)
  const relink = async () => {
    const done = await change.mutateAsync({ act: 'relink', n: v.n }).catch(() => null)
    setToken(done?.token ?? null)
  }
  return (
    <Column sx={{ width: '100%' }} spacing={0.75}>
      <Row sx={{ columnGap: 2 }}>
        <b>{headOf(v.document)}</b>
        <span>{states[v.state]}</span>
        <Quiet component="span">
          sent {day(v.sentAt)} by {v.by}, {v.seenAt ? `opened ${day(v.seenAt)}` : 'not opened yet'}, valid
          until {v.document.validUntil}
        </Quiet>
      </Row>
      {changeText(v.document) && <p>{changeText(v.document)}</p>}
      <Row sx={{ columnGap: 2 }}>
        {v.document.options.map(o => (
          <span key={o.id}>
            {o.name}: <b>{moneyText(o.total)}</b>
          </span>
        ))}
      </Row>
      {acceptance && (
        <p>
          <b>“{acceptance.option.name}”</b> accepted by {acceptance.name} on {day(acceptance.at)} at{' '}
          {moneyText(acceptance.option.total)}.
        </p>
      )}
      {v.questions.map(q => (
        <Row key={q.id}>
          <Box sx={{ flex: 1, minWidth: 200, overflowWrap: 'anywhere' }}>
            Asked {day(q.at)}: “{q.text}”
          </Box>
          {q.settled ? (
            <Quiet component="span">answered</Quiet>
          ) : (
            <Button size="small" onClick={() => change.mutate({ act: 'settle', questionId: q.id })}>
              I answered it
            </Button>
          )}
        </Row>
      ))}
      <Row>
        <Button size="small" href={`/api/jobs/${id}/estimate/pdf?n=${v.n}`}>
          As it was sent (PDF)
        </Button>
        {acceptance && (
          <Button size="small" href={`/api/jobs/${id}/estimate/pdf?n=${v.n}&signed`}>
            With its acceptance (PDF)
          </Button>
        )}
        {v.state !== 'withdrawn' && (
          <Button size="small" onClick={() => void relink()}>
            Make its link anew
          </Button>
        )}
        {v.state === 'open' && (
          <Button size="small" onClick={() => change.mutate({ act: 'withdraw', n: v.n })}>
            Withdraw
          </Button>
        )}
        <Quiet component="span">checksum {v.sha256.slice(0, 12)}…</Quiet>
      </Row>
      {token && <LinkShown token={token} />}
      {change.error && <p role="alert">{change.error.message}</p>}
    </Column>
  )
}
