import { collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client'
import { db, unbound } from '../db/connection'

const registry = new Registry()
collectDefaultMetrics({ register: registry, prefix: 'spillway_' })

const requests = new Histogram({
  name: 'spillway_request_seconds',
  help: 'Time to answer, by lane, method and status',
  labelNames: ['lane', 'method', 'status'],
  buckets: [0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10],
  registers: [registry],
})

/** Counts an answer. */
export const answered = (lane: string, method: string, status: number, seconds: number): void =>
  requests.observe({ lane, method, status: String(status) }, seconds)

new Gauge({
  name: 'spillway_database_connections',
  help: 'Connections of this process to the database, in use and idle, and who waits for one',
  labelNames: ['pool', 'state'],
  registers: [registry],
  collect() {
    for (const [name, at] of [
      ['firms', db({ firmId: '' })],
      ['house', unbound()],
    ] as const) {
      const { pool } = at.client
      this.set({ pool: name, state: 'used' }, pool.numUsed())
      this.set({ pool: name, state: 'idle' }, pool.numFree())
      this.set({ pool: name, state: 'waiting' }, pool.numPendingAcquires())
    }
  },
})

/** The queue is counted at most so often: whoever asks, ms. */
const queueEveryMs = 10_000
let counted = 0
new Gauge({
  name: 'spillway_queue_jobs',
  help: 'Work on the queue that is not done',
  labelNames: ['queue', 'state'],
  registers: [registry],
  async collect() {
    if (Date.now() - counted < queueEveryMs) return
    counted = Date.now()
    const found: { rows: { name: string; state: string; count: number }[] } = await unbound()
      .raw(`select name, state::text, count(*)::int from pgboss.job where state < 'completed' group by 1, 2`)
      .catch(() => ({ rows: [] }))
    this.reset()
    for (const { name, state, count } of found.rows) this.set({ queue: name, state }, count)
  },
})

/** What Prometheus reads. */
export const metrics = async () => ({ type: registry.contentType, text: await registry.metrics() })

/** Whether the figures are told to who asks: to this machine, and not through a proxy. */
export const mayReadMetrics = (connected: string | undefined, forwarded: string | undefined): boolean =>
  forwarded === undefined && /^(::ffff:)?127\.|^::1$/.test(connected ?? '')
