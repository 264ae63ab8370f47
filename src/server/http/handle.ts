import { NextResponse } from 'next/server'
import type * as z from 'zod'
import { largestJobBytes } from '@/core/job/read'
import { type Fault, parseWith } from '@/core/outcome'
import { troubleOf } from '../db/connection'
import { OverQuota } from '../files/quota'
import { log } from '../log'
import { admit } from '../people/admission'
import { Refusal, refuse } from './refusal'
import { markAnswer, troubleWords } from './trouble'

export { refuse }

export const gone = () => refuse(404, 'There is no such job; it may have been moved to another firm.')

/** What is private is kept by nobody on the way, nor by the browser. */
const said = (body: { message: string; faults: Fault[] }, status: number, more: HeadersInit = {}) =>
  NextResponse.json(body, { status, headers: { 'cache-control': 'no-store', ...more } })

/** Wraps a route: the gate of the house (people/admission.ts), same-origin writes only, refusals and an absent, busy or full database as JSON that a screen can show. */
export function handle<C>(act: (request: Request, context: C) => Promise<unknown>) {
  return async (request: Request, context: C): Promise<Response> => {
    try {
      if (request.method !== 'GET' && request.method !== 'HEAD') sameOriginOnly(request)
      const answer = await admit(request, () => act(request, context))
      const response = answer instanceof Response ? answer : NextResponse.json(answer)
      if (!response.headers.has('cache-control')) response.headers.set('cache-control', 'no-store')
      return response
    } catch (error) {
      if (error instanceof Refusal)
        return said({ message: error.message, faults: error.faults }, error.status, error.headers)
      if (error instanceof OverQuota) return said({ message: error.message, faults: [] }, 413)
      const trouble = troubleOf(error)
      if (trouble) {
        log.warn({ trouble, error: String(error), path: new URL(request.url).pathname }, 'not answered')
        const { status, sentence } = troubleWords[trouble]
        return said({ message: sentence, faults: [] }, status, { 'retry-after': '2' })
      }
      log.error({ err: error, path: new URL(request.url).pathname }, 'failed')
      return said({ message: 'Something went wrong in the server; nothing was written.', faults: [] }, 500)
    }
  }
}

/** For pages: what keeps the database from answering is marked on the answer, so that its status tells it. */
export async function forPage<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work()
  } catch (error) {
    const trouble = troubleOf(error)
    if (trouble) markAnswer(trouble)
    throw error
  }
}

/**
 * A write must come from a page of ours: the browser says so by `Origin` or `Sec-Fetch-Site`. What says neither is a program,
 * which states our own address as its `Origin`.
 */
function sameOriginOnly(request: Request) {
  const no = () => refuse(403, 'Writes are taken from Spillway’s own pages only: another site sent this.')
  const site = request.headers.get('sec-fetch-site')
  if (site !== null && site !== 'same-origin') no()
  const origin = request.headers.get('origin')
  if (origin === null) {
    if (site === null)
      refuse(403, 'This write does not say where it comes from: send Spillway’s own address as Origin.')
    return
  }
  if (!URL.canParse(origin) || new URL(origin).host !== request.headers.get('host')) no()
}

const kindOfBody = (request: Request) =>
  (request.headers.get('content-type') ?? '').split(';')[0]?.trim().toLowerCase() ?? ''

/** The body's bytes; refused with `tooLarge` as soon as it grows beyond `mostBytes`, without reading on. */
export async function bodyBytes(request: Request, mostBytes: number, tooLarge: string): Promise<Uint8Array> {
  if (/^(multipart\/|application\/x-www-form-urlencoded)/.test(kindOfBody(request)))
    refuse(415, 'Send the bytes of the file as they are, not a form.')
  const parts: Uint8Array[] = []
  for await (const part of bodyParts(request, mostBytes, tooLarge)) parts.push(part)
  return Buffer.concat(parts)
}

/** The body piece by piece; refused with `tooLarge` as soon as it grows beyond `mostBytes`. */
export async function* bodyParts(
  request: Request,
  mostBytes: number,
  tooLarge: string,
): AsyncGenerator<Uint8Array> {
  if (Number(request.headers.get('content-length') ?? 0) > mostBytes) refuse(413, tooLarge)
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
    yield value
  }
}

/** The body's text, as JSON is sent; refused as soon as it grows beyond `mostBytes`, or is not UTF-8. */
export async function bodyText(request: Request, mostBytes = largestJobBytes): Promise<string> {
  if (kindOfBody(request) !== 'application/json')
    refuse(415, 'Only JSON is taken here: send it as application/json.')
  const megabytes = (mostBytes / 1e6).toFixed(0)
  const bytes = await bodyBytes(
    request,
    mostBytes,
    `This is larger than ${megabytes} MB: that is not a job document.`,
  )
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    return refuse(400, 'The text is not UTF-8: save it as UTF-8, then send it again.')
  }
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
