import { personHeader } from '@/core/agreed'
import type { Fault } from '@/core/outcome'
import { whoHere } from './common/who'

/** What a request came back with: the data, or why not, in words fit for the screen. */
export type Reply<T> =
  | { ok: true; data: T }
  | { ok: false; status: number; message: string; faults: Fault[]; body: unknown }

const away = 'Spillway’s server cannot be reached.'

/** For whom this page asks: where somebody else has signed in meanwhile in this browser, it is refused, and nothing is done under their name. */
const asWho = (): Record<string, string> => (whoHere() ? { [personHeader]: whoHere() } : {})

/** Sends JSON (or a file's text) and reads JSON; never throws. Status 0 means that nothing answered. */
export async function call<T>(path: string, method: 'GET' | 'POST', body?: unknown): Promise<Reply<T>> {
  try {
    const response = await fetch(path, {
      method,
      headers: { ...asWho(), ...(body !== undefined && { 'content-type': 'application/json' }) },
      body: body === undefined ? undefined : typeof body === 'string' ? body : JSON.stringify(body),
      cache: 'no-store',
    })
    const data = await response.json().catch(() => null)
    if (response.ok) return { ok: true, data }
    const said = typeof data?.message === 'string' ? data.message : `The server answered ${response.status}.`
    return { ok: false, status: response.status, message: said, faults: data?.faults ?? [], body: data }
  } catch {
    return { ok: false, status: 0, message: away, faults: [], body: null }
  }
}

/** Sends the bytes of a file, telling the share that has gone out; never throws. */
export function upload<T>(path: string, file: Blob, onProgress: (share: number) => void): Promise<Reply<T>> {
  return new Promise(resolve => {
    const request = new XMLHttpRequest()
    const failed = () => resolve({ ok: false, status: 0, message: away, faults: [], body: null })
    request.open('POST', path)
    request.responseType = 'json'
    for (const [name, value] of Object.entries(asWho())) request.setRequestHeader(name, value)
    request.upload.onprogress = event => event.lengthComputable && onProgress(event.loaded / event.total)
    request.onerror = failed
    request.onabort = failed
    request.onload = () => {
      const { status, response: data } = request
      if (status >= 200 && status < 300) return resolve({ ok: true, data })
      const said = typeof data?.message === 'string' ? data.message : `The server answered ${status}.`
      resolve({ ok: false, status, message: said, faults: data?.faults ?? [], body: data })
    }
    request.send(file)
  })
}

/** The largest photograph or file that is sent at all, in bytes, and what is said of a larger one. */
export const largestSent = 20_000_000

export const faultLine = ({ path, message }: Fault) => (path === '$' ? message : `${path} ${message}`)
