/** The header in which our own server says where a request comes from; what was sent under this name is written over. */
export const addressHeader = 'x-spillway-address'

/** The header in which our own server says which path a page was asked by; likewise. */
export const pathHeader = 'x-spillway-path'

/**
 * The address that a request comes from: of who is connected, or, behind a proxy of ours, the last one that the proxy wrote down;
 * what stands before it anybody can have written.
 */
export function addressOf(
  connected: string | undefined,
  forwarded: string | undefined,
  behindProxy: boolean,
): string {
  const last = behindProxy ? forwarded?.split(',').at(-1)?.trim() : undefined
  const address = last || connected || 'unknown'
  return address.replace(/^::ffff:/, '').slice(0, 64)
}
