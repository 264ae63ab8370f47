import { AsyncLocalStorage } from 'node:async_hooks'
import { addressHeader } from './address'

/** Where a request comes from, for the record: its address, and the browser’s own words of itself. */
export interface Whence {
  address: string | null
  browser: string | null
}

const now = new AsyncLocalStorage<Whence>()

export const whenceOf = (headers: Headers): Whence => ({
  address: headers.get(addressHeader)?.slice(0, 64) ?? null,
  browser: headers.get('user-agent')?.slice(0, 200) ?? null,
})

/** Does something on behalf of a request, which the record then tells. */
export const fromThere = <T>(whence: Whence, work: () => T): T => now.run(whence, work)

/** Where the request comes from that is worked on; nowhere for the house’s own work. */
export const whence = (): Whence => now.getStore() ?? { address: null, browser: null }
