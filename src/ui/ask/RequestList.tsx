import { Button, List, ListItem } from '@mui/material'
import { type RequestState, requestStates } from '@/core/ask/evidence'
import type { Request } from '@/core/assess/requests'
import { saidText } from '@/core/assess/sent'
import { circuitOf } from '@/core/job/panels'
import { Card, Quiet } from '../common/pieces'
import { Thumbnails } from '../common/Thumbnails'
import { AddLine } from '../form/AddLine'
import { Choice } from '../form/Choice'
import { useWorkspace } from '../workspace/store'

/** What is asked of the customer and whoever drives out, with what became of each. */
export function RequestList() {
  const requests = useWorkspace(s => s.evaluation.requests)
  const act = useWorkspace(s => s.act)
  const toAsk = requests.filter(r => r.state === 'to ask')
  const put = (r: Request, state: RequestState) =>
    act({ op: 'putRequest', request: { ...r.record, key: r.key, state } })
  return (
    <Card
      aria-label="Requests"
      title="What is asked for"
      tools={
        toAsk.length > 0 && (
          <Button
            size="small"
            onClick={() =>
              act(
                ...toAsk.map(r => ({
                  op: 'putRequest' as const,
                  request: { ...r.record, key: r.key, state: 'asked' as const },
                })),
              )
            }
          >
            Mark all as asked
          </Button>
        )
      }
    >
      <List disablePadding>
        {requests.map(r => (
          <RequestRow key={r.key} request={r} onState={state => put(r, state)} />
        ))}
      </List>
      <OwnRequest />
    </Card>
  )
}

const edge: Partial<Record<RequestState, string>> = {
  received: 'secondary.main',
  'good enough': 'divider',
  refused: 'divider',
}

function RequestRow({ request: r, onState }: { request: Request; onState: (state: RequestState) => void }) {
  const id = useWorkspace(s => s.id)
  const act = useWorkspace(s => s.act)
  const answer = r.record?.answer
  return (
    <ListItem
      id={r.key}
      data-state={r.state}
      data-request={r.key}
      divider
      sx={{
        display: 'grid',
        gridTemplateColumns: 'minmax(0, 1fr) 136px',
        gap: 1,
        alignItems: 'start',
        pl: 1.25,
        pr: 0,
        borderLeft: 4,
        borderLeftColor: edge[r.state] ?? 'water.live',
        scrollMargin: 80,
      }}
    >
      <div>
        <b>{r.title}</b>
        <Quiet>{r.why}</Quiet>
        {answer && (
          <p>
            <b>
              {answer.by}, {answer.on}: {saidText(answer)}{' '}
              {answer.file && <a href={`/api/files/${answer.file.id}`}>Save the file</a>}
            </b>
          </p>
        )}
        {answer?.plate && <UsePlate request={r} />}
        <Thumbnails photos={r.photos} hrefOf={p => `/jobs/${id}/photos#${p.id}`} />
      </div>
      <Choice label="State" value={r.state} options={requestStates} onChange={onState} />
      {r.record?.own && (
        <Button size="small" onClick={() => act({ op: 'removeRequest', key: r.key })}>
          Remove
        </Button>
      )}
    </ListItem>
  )
}

/** What a plate said, put on the load it belongs to, with its provenance. */
function UsePlate({ request: r }: { request: Request }) {
  const job = useWorkspace(s => s.job)
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const [, circuitId = '', loadId = ''] = r.key.split(':')
  const load = circuitOf(job, circuitId)?.circuit.loads.find(l => l.id === loadId)
  const { plate, on } = r.record?.answer ?? {}
  if (!load || !plate || !on) return null
  return (
    <Button
      size="small"
      variant="outlined"
      onClick={() => {
        const [fault] = act(
          { op: 'takePlate', circuitId, loadId, newLoadId: loadId, name: load.name, plate, on },
          { op: 'putRequest', request: { ...r.record, key: r.key, state: 'good enough' } },
        )
        say(fault ? `Not taken over: ${fault.message}` : `Taken over for ${load.name}. Undo takes it back.`)
      }}
    >
      Take over for {load.name}
    </Button>
  )
}

function OwnRequest() {
  const act = useWorkspace(s => s.act)
  return (
    <AddLine
      label="Ask for something else"
      most={80}
      onAdd={title =>
        act({
          op: 'putRequest',
          request: {
            key: `own:${crypto.randomUUID()}`,
            state: 'to ask',
            own: { title, why: 'Asked by the installer.' },
          },
        })
      }
    />
  )
}
