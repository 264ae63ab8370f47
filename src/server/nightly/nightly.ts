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
  /** days that an invitation stays after it was taken, withdrawn or ran out */
  invitationDays: 90,
} as const

const statements: Record<string, { sql: string; days: number }> = {
  stepsPacked: {
    days: rules.undoDays,
    // by way of the index of long jobs: of the others no change is looked at
    sql: `update job_change c set operation = null, forward = null, backward = null from job j
      where j.firm_id = :firmId and j.revision > ${rules.undoChanges}
        and j.id = c.job_id and c.at < :before and c.revision <= j.revision - ${rules.undoChanges}
        and (c.forward is not null or c.operation is not null)`,
  },
  // of steps that were packed away nothing is played again: the whole ones among them have served
  wholes: {
    days: rules.undoDays,
    sql: `delete from job_snapshot s using job j
      where j.firm_id = :firmId and j.revision > ${rules.undoChanges} and s.job_id = j.id
        and exists (select from job_change c where c.job_id = s.job_id
          and c.kind = 'do' and c.forward is null and c.at < :before and c.revision > s.revision)`,
  },
  searches: {
    days: rules.searchDays,
    sql: `delete from design_search s where s.firm_id = :firmId and s.created_at < :before and s.state <> 'running' and
      (select count(*) from design_search n where n.job_id = s.job_id and n.seq > s.seq) >= ${rules.searchesOfAJob}`,
  },
  photographs: {
    days: rules.photoDays,
    // most are shown by their own job. A copy of a job shows those of the job it was made from: where some are loose, every job of the
    // firm is read, once
    sql: `with loose as materialized (
        select p.id, p.job_id from photo p where p.firm_id = :firmId and p.at < :before
           and not exists (select from job j where j.id = p.job_id
             and j.document @> jsonb_build_object('photos', jsonb_build_array(jsonb_build_object('id', p.id))))),
      shown as materialized (
        select s ->> 'id' as id from job j cross join lateral jsonb_array_elements(j.document -> 'photos') s
         where j.firm_id = :firmId and exists (select from loose))
      delete from photo p using loose l where p.firm_id = :firmId and p.id = l.id
        and not exists (select from shown where shown.id = l.id::text)
        and not exists (select from job_change c where c.job_id = l.job_id
          and (strpos(c.backward::text, l.id::text) > 0 or strpos(c.forward::text, l.id::text) > 0))`,
  },
  utilityFiles: {
    days: rules.fileDays,
    sql: `with loose as materialized (
        select f.id from job_file f where f.firm_id = :firmId and f.at < :before and f.kind in ('xml', 'csv')
           and not exists (select from job j where j.id = f.job_id and strpos(j.document::text, f.id::text) > 0)),
      named as materialized (
        select distinct found[1] as id from job j
          cross join lateral regexp_matches(j.document::text, '[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}', 'g') found
         where j.firm_id = :firmId and exists (select from loose))
      delete from job_file f using loose l where f.firm_id = :firmId and f.id = l.id
        and not exists (select from named where named.id = l.id::text)`,
  },
  logs: {
    days: rules.photoDays,
    sql: `delete from job_file f where f.firm_id = :firmId and f.at < :before and f.kind = 'meter log'
      and (select count(*) from job_file n where n.job_id = f.job_id and n.kind = f.kind and n.at > f.at) >= ${rules.logsOfAJob}
      and not exists (select from job j where j.id = f.job_id and strpos(j.document::text, f.id::text) > 0)`,
  },
  invitations: {
    days: rules.invitationDays,
    sql: `delete from invitation
      where firm_id = :firmId and coalesce(accepted_at, withdrawn_at, expires_at) < :before`,
  },
  links: {
    days: rules.linkDays,
    sql: `delete from customer_link where firm_id = :firmId and coalesce(withdrawn_at, expires_at) < :before`,
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
        // what is to go is there until it goes: it may come back, with all that it shows
        await trx.raw(`set local spillway.deleted = 'yes'`)
        const done: { rowCount: number | null } = await trx.raw(sql, { before, firmId: firm.firmId })
        return done.rowCount ?? 0
      },
      always,
    )
  }
  log.info({ ...firm, ...counts }, 'nightly')
  return counts
}
