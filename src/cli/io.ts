import { createReadStream } from 'node:fs'
import { stat } from 'node:fs/promises'
import type { Fault } from '@/core/outcome'

export const badInput = 2

export function complain(message: string): number {
  process.stderr.write(`spillway: ${message}\n`)
  return badInput
}

export function complainOf(name: string, faults: readonly Fault[]): number {
  for (const { path, message } of faults) complain(`${name}: ${path}: ${message}`)
  return badInput
}

export const print = (value: unknown) => process.stdout.write(`${JSON.stringify(value, null, 2)}\n`)

/** The stream of a file, or of standard input for `-`. */
export const open = (file: string) => (file === '-' ? process.stdin : createReadStream(file))

/** The whole text of a file (`-` for standard input); refuses one larger than `mostBytes` before and while reading. */
export async function readText(
  file: string,
  mostBytes: number,
): Promise<{ text: string } | { problem: string }> {
  const tooLarge = `is larger than ${mostBytes.toLocaleString('en-US')} bytes: that is not such a file`
  try {
    if (file !== '-' && (await stat(file)).size > mostBytes) return { problem: tooLarge }
    const parts: Buffer[] = []
    let size = 0
    for await (const part of open(file)) {
      const bytes = Buffer.from(part)
      size += bytes.length
      if (size > mostBytes) return { problem: tooLarge }
      parts.push(bytes)
    }
    return { text: Buffer.concat(parts).toString('utf8') }
  } catch (error) {
    return { problem: `cannot be read: ${error instanceof Error ? error.message : String(error)}` }
  }
}
