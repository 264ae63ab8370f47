'use client'
import { useCallback, useState } from 'react'
import type { WeatherRead } from '@/core/formats/weather-file'
import { fail, fault, type Outcome } from '@/core/outcome'

const mostBytes = 8_000_000
/** A year is read in a second; what takes this long was made to take it. */
const mostMs = 20_000
const tooLong = fail(fault('$', 'takes longer to read than a year of weather does: it was put aside'))

type Read = ({ ok: true } & WeatherRead) | { ok: false; message: string }

/** Reads a weather file in a worker; what is wrong with it comes back in words. */
export function useWeatherFile() {
  const [busy, setBusy] = useState(false)
  const read = useCallback(async (file: File): Promise<Read> => {
    if (file.size > mostBytes)
      return {
        ok: false,
        message: `${file.name} is larger than ${mostBytes / 1e6} MB: a year by the hour is about 2 MB.`,
      }
    setBusy(true)
    const worker = new Worker(new URL('../../workers/weather-file.ts', import.meta.url), { type: 'module' })
    const outcome = await new Promise<Outcome<WeatherRead> | null>(resolve => {
      worker.onmessage = ({ data }: MessageEvent<Outcome<WeatherRead>>) => resolve(data)
      worker.onerror = () => resolve(null)
      setTimeout(() => resolve(tooLong), mostMs)
      worker.postMessage(file)
    })
    worker.terminate()
    setBusy(false)
    if (!outcome) return { ok: false, message: `${file.name} could not be read. Load the page again.` }
    return outcome.ok
      ? { ok: true, ...outcome.value }
      : {
          ok: false,
          message: `${file.name}: ${outcome.faults.map(f => `${f.path === '$' ? 'the file' : f.path} ${f.message}`).join('; ')}.`,
        }
  }, [])
  return { read, busy }
}
