import { Alert, Button, LinearProgress } from '@mui/material'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { FileText, PenLine } from 'lucide-react'
import dynamic from 'next/dynamic'
import { useState } from 'react'
import { type Pack, type Signing, standsAgainst } from '@/core/handover/pack'
import { plural } from '@/core/units/format'
import { call, faultLine } from '../api'
import { Card, Column, Quiet, Row } from '../common/pieces'
import { told } from '../query'
import { useWorkspace } from '../workspace/store'

const Sign = dynamic(() => import('./Sign').then(m => m.Sign))

const pollMs = 700
const sides = { installer: 'the firm', customer: 'the house' } as const

/** Everything that stays with the house in one document, frozen; signed here by both. */
export function Packs() {
  const id = useWorkspace(s => s.id)
  const pending = useWorkspace(s => s.pending.length)
  const at = `/api/jobs/${id}/packs`
  const client = useQueryClient()
  const [said, setSaid] = useState<string | null>(null)
  const [signing, setSigning] = useState<{ n: number; as: Signing['as'] } | null>(null)
  const { data, error } = useQuery({
    queryKey: [at],
    queryFn: () => told<{ packs: Pack[] }>(at),
    refetchInterval: query => (query.state.data?.packs.some(p => p.state === 'making') ? pollMs : false),
  })
  const packs = data?.packs ?? []
  const making = packs.some(p => p.state === 'making')
  const send = async (path: string, body: object) => {
    const answer = await call<{ packs: Pack[] }>(path, 'POST', body)
    if (answer.ok) client.setQueryData([at], answer.data)
    return answer
  }
  const make = async () => {
    const answer = await send(at, {})
    setSaid(answer.ok ? null : answer.message)
  }
  return (
    <Card title="The pack">
      <Quiet>
        One document: what was accepted, directory, one-line, wiring, findings with names, tests, card,
        labels, photographs, warranties, and the job as an open file inside. Frozen with its day, revision and
        checksum.
      </Quiet>
      <Row>
        <Button variant="contained" disabled={making || pending > 0} onClick={() => void make()}>
          {packs.length ? 'Make it anew' : 'Make the pack'}
        </Button>
        {pending > 0 && <Quiet>Once what you typed is saved.</Quiet>}
        <span role="status">{said ?? error?.message}</span>
      </Row>
      {packs.map(p => (
        <Column key={p.id} component="section" aria-label={`Pack ${p.n}`} spacing={1}>
          <Row>
            <b>Pack {p.n}</b>
            <Quiet>
              revision {p.revision}, {p.askedAt.slice(0, 10)}, {p.by}
              {p.bytes !== null && `, ${(p.bytes / 1e6).toFixed(1)} MB`}
            </Quiet>
          </Row>
          {p.state === 'making' && (
            <LinearProgress variant="determinate" value={100 * p.progress} aria-label="How far it is" />
          )}
          {p.state === 'failed' && <Alert severity="error">{p.trouble}</Alert>}
          {p.document && (
            <>
              {standsAgainst(p.document).length > 0 && (
                <Alert severity="warning">
                  {plural(standsAgainst(p.document).length, 'point stands', 'points stand')} against it: its
                  first page says so.
                </Alert>
              )}
              <Row>
                <Button
                  component="a"
                  href={`${at}/${p.n}`}
                  target="_blank"
                  startIcon={<FileText size={16} aria-hidden />}
                >
                  Open (PDF)
                </Button>
                {(['installer', 'customer'] as const).map(as => {
                  const signed = p.signatures.find(s => s.as === as)
                  return signed ? (
                    <Quiet key={as}>
                      Signed for {sides[as]}: {signed.name}, {signed.at.slice(0, 10)}
                    </Quiet>
                  ) : (
                    <Button
                      key={as}
                      size="small"
                      startIcon={<PenLine size={16} aria-hidden />}
                      onClick={() => setSigning({ n: p.n, as })}
                    >
                      Sign for {sides[as]}
                    </Button>
                  )
                })}
                {p.signatures.length > 0 && (
                  <Button size="small" component="a" href={`${at}/${p.n}?signatures`} target="_blank">
                    Signatures (PDF)
                  </Button>
                )}
              </Row>
              <Quiet sx={{ overflowWrap: 'anywhere' }}>Checksum: {p.pdfSha256}</Quiet>
            </>
          )}
        </Column>
      ))}
      {signing && (
        <Sign
          title={`Pack ${signing.n}, for ${sides[signing.as]}`}
          onClose={() => setSigning(null)}
          onSign={async signed => {
            const answer = await send(`${at}/${signing.n}`, { as: signing.as, ...signed })
            if (!answer.ok) return answer.faults.map(faultLine).join('; ') || answer.message
            setSigning(null)
            return null
          }}
        />
      )}
    </Card>
  )
}
