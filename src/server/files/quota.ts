import type { Knex } from 'knex'

/** Bytes of photographs, files and intervals that a job, and a firm, may keep. */
export const quotas = { job: 1_000_000_000, firm: 40_000_000_000 }

/** As much is kept as may be; the message says where and what to do. */
export class OverQuota extends Error {}

const tables = ['photo', 'job_file', 'interval_series'] as const

async function kept(at: Knex, firmId: string, jobId?: string): Promise<number> {
  const sums = tables.map(table =>
    at(table)
      .where({ firm_id: firmId, ...(jobId && { job_id: jobId }) })
      .sum('bytes as bytes')
      .first(),
  )
  const rows = await Promise.all(sums)
  return rows.reduce((sum, row) => sum + Number(row?.bytes ?? 0), 0)
}

const gigabytes = (bytes: number) => `${(bytes / 1e9).toFixed(1)} GB`

/** Throws `OverQuota` where so many bytes more would be too much for the job or the firm. */
export async function needRoom(at: Knex, firmId: string, jobId: string, bytes: number): Promise<void> {
  if ((await kept(at, firmId, jobId)) + bytes > quotas.job)
    throw new OverQuota(
      `This job keeps ${gigabytes(quotas.job)} of photographs and files, as much as a job may: remove some of them first.`,
    )
  if ((await kept(at, firmId)) + bytes > quotas.firm)
    throw new OverQuota(
      `The firm keeps ${gigabytes(quotas.firm)} of photographs and files, as much as it may: remove some of them first.`,
    )
}
