import { handle, refuse } from '@/server/http/handle'
import { warmUp } from '@/server/web/warm'
import { isWarming } from '@/server/web/warming'

/** Asked by this process of itself, before it listens to anybody: what everybody asks for is then compiled. */
export const GET = handle(async () =>
  isWarming() ? { times: warmUp() } : refuse(404, 'There is nothing here.'),
)
