import type { JobRecord } from '@/core/assess/record'
import { applyOperation } from '@/core/job/operations'
import type { Job } from '@/core/job/schema'
import { alderHollow } from '@/server/seeds/jobs/alder-hollow'
import * as engine from '../workspace/engine'
import { createWorkspace } from '../workspace/store'

/** What other addresses than the job's answer; null: it is the job that is asked. */
export type Besides = (path: string, init?: RequestInit) => Response | null | Promise<Response | null>

/** A job's workspace with its engine here. */
export const workspaceOf = (record: JobRecord, person = 'Designer') =>
  createWorkspace({ record, evaluation: engine.evaluate(record.job), person, engine })

/** An answer that refuses, or (0) does not come. */
export const not = (status: number, message: string) => ({
  ok: false as const,
  status,
  message,
  faults: [],
  body: null,
})

/** Servers far apart in their revisions: what a test before left to be sent is known by them, and gets no answer. */
let revision = 1
const apart = 1000

/** A server in a few lines: one job, revisions, and a switch that takes it away. */
export function fakeServer(job: Job = alderHollow, besides: Besides = () => null) {
  revision += apart
  const server = {
    record: {
      id: 'job',
      job,
      revision,
      undos: [],
      redos: [],
      archived: false,
    } as JobRecord,
    away: false,
    refuses: '',
    sent: 0,
    others: { changes: 1, customersOnly: false },
    batches: [] as string[][],
    elsewhere(hours: number) {
      server.record = {
        ...server.record,
        revision: server.record.revision + 1,
        job: { ...server.record.job, outage: { ...server.record.job.outage, hours } },
      }
    },
  }
  global.fetch = async (path, init) => {
    const other = await besides(String(path), init)
    if (other) return other
    if (server.away) throw new TypeError('fetch failed')
    if (!init?.body) return Response.json({ record: server.record, since: [] })
    server.sent++
    const { baseRevision, changes } = JSON.parse(String(init.body))
    if (Math.abs(baseRevision - server.record.revision) > apart / 2) return new Promise(() => {})
    if (baseRevision !== server.record.revision)
      return Response.json(
        {
          record: server.record,
          since: [{ revision: 2, person: 'Other', sentence: 'set the outage' }],
          others: server.others,
          applied: [],
        },
        { status: 409 },
      )
    server.batches.push(changes.map((c: { kind: string }) => c.kind))
    const refused = changes.find((c: { operation?: { op: string } }) => c.operation?.op === server.refuses)
    if (refused) return Response.json({ message: 'no', faults: [], changeId: refused.id }, { status: 400 })
    for (const change of changes) {
      if (change.kind !== 'do') {
        const { undos, redos, revision } = server.record
        const ways =
          change.kind === 'undo'
            ? { undos: undos.slice(1), redos: ['it', ...redos] }
            : { undos: ['it', ...undos], redos: redos.slice(1) }
        server.record = { ...server.record, ...ways, job, revision: revision + 1 }
        continue
      }
      const next = applyOperation(server.record.job, change.operation)
      if (!next.ok) return Response.json({ message: 'no', faults: next.faults }, { status: 400 })
      server.record = {
        ...server.record,
        job: next.value,
        revision: server.record.revision + 1,
        undos: ['it'],
      }
    }
    return Response.json({ record: server.record })
  }
  return server
}
