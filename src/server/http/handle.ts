import { NextResponse } from 'next/server'
import type * as z from 'zod'
import { largestJobBytes } from '@/core/job/read'
import { type Fault, parseWith } from '@/core/outcome'
import { isAway } from '../db/connection'

/** An answer that is not the data: its status, a sentence for the person, and the faults by field. */
class Refusal extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly faults: Fault[] = [],
  ) {
    super(message)
  }
}

export const refuse = (status: number, message: string, faults?: Fault[]): never => {
  throw new Refusal(status, message, faults)
}

export const gone = () => refuse(404, 'There is no such job; it may have been moved to another firm.')

/** Wraps a route: same-origin writes only, refusals and an absent database as JSON that a screen can show. */
export function handle<C>(act: (request: Request, context: C) => Promise<unknown>) {
  return async (request: Request, context: C): Promise<Response> => {
    try {
      if (request.method !== 'GET') sameOriginOnly(request)
      const answer = await act(request, context)
      return answer instanceof Response ? answer : NextResponse.json(answer)
    } catch (error) {
      if (error instanceof Refusal)
        return NextResponse.json({ message: error.message, faults: error.faults }, { status: error.status })
      if (isAway(error))
        return NextResponse.json(
          { message: 'The database cannot be reached just now; nothing was written.', faults: [] },
          { status: 503 },
        )
      // biome-ignore lint/suspicious/noConsole: the server's log is where an unexpected error belongs
      console.error(error)
      return NextResponse.json(
        { message: 'Something went wrong in the server; nothing was written.', faults: [] },
        { status: 500 },
      )
    }
  }
}

function sameOriginOnly(request: Request) {
  const origin = request.headers.get('origin')
  if (origin && new URL(origin).host !== request.headers.get('host'))
    refuse(403, 'Requests from another site are refused.')
}

/** The body's text; refused as soon as it grows beyond `mostBytes`. */
export async function bodyText(request: Request, mostBytes = largestJobBytes): Promise<string> {
  const tooLarge = () =>
    refuse(413, `The file is larger than ${(mostBytes / 1e6).toFixed(0)} MB: that is not a job document.`)
  if (Number(request.headers.get('content-length') ?? 0) > mostBytes) tooLarge()
  const decoder = new TextDecoder()
  let text = ''
  let size = 0
  const reader = request.body?.getReader()
  while (reader) {
    const { done, value } = await reader.read()
    if (done) break
    size += value.length
    if (size > mostBytes) tooLarge()
    text += decoder.decode(value, { stream: true })
  }
  return text + decoder.decode()
}

/** The body's bytes; refused with `tooLarge` as soon as it grows beyond `mostBytes`, without reading on. */
export async function bodyBytes(request: Request, mostBytes: number, tooLarge: string): Promise<Uint8Array> {
  if (Number(request.headers.get('content-length') ?? 0) > mostBytes) refuse(413, tooLarge)
  const parts: Uint8Array[] = []
  let size = 0
  const reader = request.body?.getReader()
  while (reader) {
    const { done, value } = await reader.read()
    if (done) break
    size += value.length
    if (size > mostBytes) {
      await reader.cancel()
      refuse(413, tooLarge)
    }
    parts.push(value)
  }
  return Buffer.concat(parts)
}

/** The body as what `schema` describes, or 400 with a fault for each field. */
export async function bodyAs<T>(request: Request, schema: z.ZodType<T>): Promise<T> {
  const text = await bodyText(request)
  let raw: unknown
  try {
    raw = JSON.parse(text)
  } catch {
    return refuse(400, 'The request is not whole JSON.')
  }
  const parsed = parseWith(schema, raw)
  return parsed.ok ? parsed.value : refuse(400, 'Something in it cannot be taken.', parsed.faults)
}
