import type { Operation } from '@/core/job/operations'
import type { Job } from '@/core/job/schema'
import { line } from '@/core/quantity'
import { refuse } from '@/server/http/handle'
import { countUpload, type Opened, openLink, writeAsCustomer } from '@/server/links/repository'

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

export async function counted(opened: Opened): Promise<void> {
  if (!(await countUpload(opened)))
    refuse(429, 'This link has taken as many pictures and files as it may. Ask the installer for a new one.')
}

/** Who stands in the record, and the day. */
export const sender = ({ customer }: Opened) => ({
  by: customer.label,
  on: new Date().toISOString().slice(0, 10),
})

/** Writes, or refuses in words: when it is no longer asked for, or cannot be taken. */
export async function write(opened: Opened, operations: (job: Job) => Operation[]): Promise<void> {
  let asked = false
  const faults = await writeAsCustomer(
    opened,
    job => {
      const made = operations(job)
      asked = made.length > 0
      return made
    },
    new Date(),
  )
  if (!asked) refuse(409, 'This is no longer asked for. Open the page again to see what is.')
  const [first] = faults
  if (first) refuse(400, `It cannot be taken: ${first.message}`, faults)
}
