import type { Knex } from 'knex'
import { dayIn } from '@/core/day'
import type { Operation } from '@/core/job/operations'
import type { Job } from '@/core/job/schema'
import { type Language, languageOf } from '@/core/languages'
import { line } from '@/core/quantity'
import { refuse } from '@/server/http/handle'
import { type Opened, openLink, takeFromCustomer } from '@/server/links/repository'

export interface LinkParams {
  params: Promise<{ token: string }>
}

/** What the link of the address opens; refused in the same words whether it is unknown, expired or withdrawn. */
export async function linkOf(params: LinkParams['params']): Promise<Opened> {
  const opened = await openLink((await params).token, new Date())
  return opened ?? refuse(404, 'This link is no longer valid. Ask the installer for a new one.')
}

/** The request that an upload answers, from the address. */
export function requestKey(request: Request): string {
  const key = line(90, 1).safeParse(new URL(request.url).searchParams.get('request') ?? '')
  return key.success ? key.data : refuse(400, 'The upload does not say what it is for; open the page again.')
}

/** Who stands in the record, and the day. */
export const sender = ({ customer }: Opened) => ({
  by: customer.label,
  on: dayIn(customer.zone, new Date()),
})

/** Takes in what was sent, or refuses in words: when it is no longer asked for, is too much, or cannot be taken. */
export async function take(
  opened: Opened,
  operations: (job: Job) => Operation[],
  sent: { bytes: number; keep: (trx: Knex) => Promise<unknown> } | null = null,
): Promise<void> {
  const outcome = await takeFromCustomer(opened, operations, new Date(), sent)
  switch (outcome.state) {
    case 'nothing':
      return refuse(409, 'This is no longer asked for. Open the page again to see what is.')
    case 'enough':
      return refuse(429, 'This link has taken as much as it may. Ask the installer for a new one.')
    case 'gone':
      return refuse(404, 'This job is no longer here. Ask the installer.')
    case 'refused':
      return refuse(400, `It cannot be taken: ${outcome.faults[0]?.message ?? ''}`, outcome.faults)
  }
}

/** The language in which the page was read. */
export const askedIn = (request: Request): Language =>
  languageOf(new URL(request.url).searchParams.get('language'), null)
