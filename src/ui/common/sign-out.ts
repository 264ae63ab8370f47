import { call } from '../api'
import { forgetHere } from './device'

let leaving = false
/** Whether somebody said that they leave, and what stays behind was told. */
export const isLeaving = (): boolean => leaving

/** Signs out and leaves nothing of the firm's jobs on this device but what was not sent. Why not, where the server does not do it. */
export async function signOut(): Promise<string | null> {
  const reply = await call('/api/auth/sign-out', 'POST', {})
  if (!reply.ok) return `You are still signed in. ${reply.message}`
  await leaveFor('/sign-in')
  return null
}

/** Goes where nothing of the firm is shown any more, and leaves nothing of its jobs on this device but what was not sent. */
export async function leaveFor(path: string): Promise<void> {
  await forgetHere().catch(() => {})
  leaving = true
  // a whole page: nothing of who was here stays in memory
  window.location.assign(path)
}
