import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import { NextResponse } from 'next/server'
import { handle } from '@/server/http/handle'

/** The solver of switch positions, as WebAssembly: shipped with the application, kept by the browser. */
export const GET = handle(async () => {
  const wasm = await readFile(join(process.cwd(), 'node_modules/highs/build/highs.wasm'))
  return new NextResponse(new Uint8Array(wasm), {
    headers: { 'content-type': 'application/wasm', 'cache-control': 'private, max-age=604800' },
  })
})
