import { ownerDb } from '../src/server/db/connection'
import { openFirm, password } from './torture/firms'

/**
 * What it costs to come in, and to be held to one's firm: sign-ins whole, and whole requests with PostgreSQL's policies of rows and
 * without them, by turns.
 */
export async function accounts(
  url: string,
  jobId: string,
  cookie: string,
  timed: (count: number, act: () => unknown) => Promise<number[]>,
  report: (what: string, values: number[], limit: string) => void,
): Promise<void> {
  const { email } = await openFirm(url, 1)
  const asked = async (path: string, as: string, body?: object) => {
    const answer = await fetch(url + path, {
      method: body ? 'POST' : 'GET',
      headers: { origin: url, cookie: as, ...(body && { 'content-type': 'application/json' }) },
      body: body && JSON.stringify(body),
    })
    const said = await answer.text()
    if (!answer.ok) throw new Error(`${path}: ${answer.status} ${said.slice(0, 200)}`)
    return said
  }
  report(
    'sign-in with argon2id',
    await timed(40, () => asked('/api/auth/sign-in/email', '', { email, password })),
    '400 ms',
  )

  let revision = JSON.parse(await asked(`/api/jobs/${jobId}`, cookie)).record.revision as number
  const requests: Record<string, () => Promise<unknown>> = {
    list: () => asked('/api/jobs', cookie),
    'page of the list': () => asked('/jobs', cookie),
    search: () => asked('/api/jobs?q=house', cookie),
    open: () => asked(`/api/jobs/${jobId}`, cookie),
    change: async () => {
      const operation = { op: 'setOutage', facts: { hours: 20 + (revision % 50) } }
      const changes = [{ id: crypto.randomUUID(), kind: 'do', operation }]
      await asked(`/api/jobs/${jobId}/changes`, cookie, { baseRevision: revision, changes })
      revision++
    },
  }
  const tables: { rows: { name: string }[] } = await ownerDb().raw(
    `select relname as name from pg_class where relrowsecurity and relkind = 'r' and relnamespace = 'public'::regnamespace`,
  )
  const spent: Record<string, { on: number[]; off: number[] }> = {}
  for (const state of ['on', 'off', 'off', 'on', 'on', 'off', 'off', 'on'] as const) {
    for (const { name } of tables.rows)
      await ownerDb().raw(`alter table ?? ${state === 'on' ? 'enable' : 'disable'} row level security`, [
        name,
      ])
    for (const [what, act] of Object.entries(requests)) {
      spent[what] ??= { on: [], off: [] }
      await timed(15, act)
      spent[what][state].push(...(await timed(60, act)))
    }
  }
  for (const { name } of tables.rows) await ownerDb().raw('alter table ?? enable row level security', [name])
  const mean = (all: number[]) => all.reduce((sum, one) => sum + one, 0) / all.length
  for (const [what, { on, off }] of Object.entries(spent))
    console.log(
      `${what}, whole request: ${mean(on).toFixed(2)} ms with the policies of rows, ${mean(off).toFixed(2)} ms without: ${((mean(on) / mean(off) - 1) * 100).toFixed(1)} % (limit 10 %)`,
    )
}
