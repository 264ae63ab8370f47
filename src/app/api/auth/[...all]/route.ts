import { throughAccountDoor } from '@/server/accounts/door'
import { handle } from '@/server/http/handle'

/** Signing up, in and out, passwords, passkeys, second steps: what is open stands in accounts/door.ts. */
export const GET = handle(throughAccountDoor)
export const POST = handle(throughAccountDoor)
