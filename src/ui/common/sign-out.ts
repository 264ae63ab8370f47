import { call } from '../api'
import { forgetHere } from './device'

let leaving = false
/** Whether somebody said that they leave, and what stays behind was told. */
export const isLeaving = (): boolean => leaving

/** Signs out and leaves nothing of the firm's jobs on this device but what was not sent. Why not, where the server does not do it. */
export async function signOut(): Promise<string | null> {
  const reply = await call('/api/auth/sign-out', 'POST', {})
  if (!reply.ok) return `You are still signed in. ${reply.message}`
  await forgetHere().catch(() => {})
  leaving = true
  // a whole page: nothing of who was here stays in memory
  window.location.assign('/sign-in')
  return null
}
