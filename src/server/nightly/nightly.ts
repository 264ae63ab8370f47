import type { OfFirm } from '../db/connection'
import { always, transaction } from '../db/transaction'
import { log } from '../log'

/** What is kept how long; docs/growth.md says why. */
export const rules = {
  /** changes of a job whose steps stay whole, whatever their age */
  undoChanges: 200,
  /** days that the steps of every change stay whole */
  undoDays: 90,
  searchesOfAJob: 3,
  searchDays: 14,
  /** days until a photograph goes that no job shows, and no kept step would bring back */
  photoDays: 30,
  /** days until a utility's file goes that no request names: its intervals stay */
  fileDays: 180,
  /** logs of a job that its screen lists */
  logsOfAJob: 100,
  /** days that a link stays in the list after it ended */
  linkDays: 365,
} as const

const statements: Record<string, { sql: string; days: number }> = {
  stepsPacked: {
    days: rules.undoDays,
    sql: `update job_change c set operation = null, forward = null, backward = null from job j
      where j.id = c.job_id and c.at < :before and c.revision <= j.revision - ${rules.undoChanges}
        and (c.forward is not null or c.operation is not null)`,
  },
  // of steps that were packed away nothing is played again: the whole ones among them have served
  wholes: {
    days: rules.undoDays,
    sql: `delete from job_snapshot s where exists (select from job_change c where c.job_id = s.job_id
      and c.kind = 'do' and c.forward is null and c.at < :before and c.revision > s.revision)`,
  },
  searches: {
    days: rules.searchDays,
    sql: `delete from design_search s where s.created_at < :before and s.state <> 'running' and
      (select count(*) from design_search n where n.job_id = s.job_id and n.seq > s.seq) >= ${rules.searchesOfAJob}`,
  },
  photographs: {
    days: rules.photoDays,
    // a copy of a job shows the pictures of the job it was made from
    sql: `delete from photo p where p.at < :before
      and not exists (select from job j where j.firm_id = p.firm_id
        and j.document @> jsonb_build_object('photos', jsonb_build_array(jsonb_build_object('id', p.id))))
      and not exists (select from job_change c where c.firm_id = p.firm_id and c.job_id = p.job_id
        and (strpos(c.backward::text, p.id::text) > 0 or strpos(c.forward::text, p.id::text) > 0))`,
  },
  utilityFiles: {
    days: rules.fileDays,
    sql: `delete from job_file f where f.at < :before and f.kind in ('xml', 'csv')
      and not exists (select from job j where j.firm_id = f.firm_id and strpos(j.document::text, f.id::text) > 0)`,
  },
  logs: {
    days: rules.photoDays,
    sql: `delete from job_file f where f.at < :before and f.kind = 'meter log'
      and (select count(*) from job_file n where n.job_id = f.job_id and n.kind = f.kind and n.at > f.at) >= ${rules.logsOfAJob}
      and not exists (select from job j where j.id = f.job_id and strpos(j.document::text, f.id::text) > 0)`,
  },
  links: {
    days: rules.linkDays,
    sql: `delete from customer_link where coalesce(withdrawn_at, expires_at) < :before`,
  },
}

/** Packs and prunes what has served a firm, each kind in a transaction of its own; answers how many rows of each. */
export async function nightly(firm: OfFirm, now: Date): Promise<Record<string, number>> {
  const counts: Record<string, number> = {}
  for (const [name, { sql, days }] of Object.entries(statements)) {
    const before = new Date(now.getTime() - days * 86_400_000)
    counts[name] = await transaction(
      firm,
      async trx => {
        // nobody waits for it, and it waits for nobody long
        await trx.raw(`set local statement_timeout = '10min'`)
        const done: { rowCount: number | null } = await trx.raw(sql, { before })
        return done.rowCount ?? 0
      },
      always,
    )
  }
  log.info({ ...firm, ...counts }, 'nightly')
  return counts
}
