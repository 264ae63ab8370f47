import type { Knex } from 'knex'

/** Bytes of photographs, files and intervals that a job, and a firm, may keep. */
export const quotas = { job: 1_000_000_000, firm: 40_000_000_000 }

/** As much is kept as may be; the message says where and what to do. */
export class OverQuota extends Error {}

const tables = ['photo', 'job_file', 'interval_series'] as const

/** Bytes that the job, and the firm, keep now. */
async function kept(at: Knex, firmId: string, jobId: string): Promise<{ job: number; firm: number }> {
  const all = tables
    .map(table => `select job_id, bytes from ${table} where firm_id = :firmId`)
    .join(' union all ')
  const { rows } = await at.raw(
    `select coalesce(sum(bytes) filter (where job_id = :jobId), 0)::float8 as job,
            coalesce(sum(bytes), 0)::float8 as firm from (${all}) as sizes`,
    { firmId, jobId },
  )
  return rows[0]
}

const gigabytes = (bytes: number) => `${(bytes / 1e9).toFixed(1)} GB`

/** Throws `OverQuota` where so many bytes more would be too much for the job or the firm. */
export async function needRoom(at: Knex, firmId: string, jobId: string, bytes: number): Promise<void> {
  const { job, firm } = await kept(at, firmId, jobId)
  if (job + bytes > quotas.job)
    throw new OverQuota(
      `This job keeps ${gigabytes(quotas.job)} of photographs and files, as much as a job may: remove some of them first.`,
    )
  if (firm + bytes > quotas.firm)
    throw new OverQuota(
      `The firm keeps ${gigabytes(quotas.firm)} of photographs and files, as much as it may: remove some of them first.`,
    )
}
