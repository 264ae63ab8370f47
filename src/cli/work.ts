import { closeDb } from '@/server/db/connection'
import { workOnSearches } from '@/server/search/queue'

/** Works on background searches until it is told to stop. */
export async function work(): Promise<number> {
  const { stop } = await workOnSearches()
  process.stdout.write('worker ready\n')
  await new Promise<void>(resolve => {
    process.once('SIGTERM', resolve)
    process.once('SIGINT', resolve)
  })
  await stop()
  await closeDb()
  return 0
}
