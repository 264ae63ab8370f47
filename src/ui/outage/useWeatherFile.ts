import { useCallback, useEffect, useState } from 'react'
import type { WeatherRead } from '@/core/formats/weather-file'
import { fail, fault } from '@/core/outcome'
import type { WeatherFile } from '@/workers/desks/weather-file'
import { Pool } from '../workers/pool'

const mostBytes = 8_000_000
/** A year is read in a second; what takes this long was made to take it. */
const mostMs = 20_000
const tooLong = fail(fault('$', 'takes longer to read than a year of weather does: it was put aside'))
const start = () => new Worker(new URL('../../workers/weather-file.ts', import.meta.url), { type: 'module' })

type Read = ({ ok: true } & WeatherRead) | { ok: false; message: string }

/** Reads a weather file in a worker; what is wrong with it comes back in words. */
export function useWeatherFile() {
  const [pool] = useState(() => new Pool<WeatherFile>(start, 1))
  const [busy, setBusy] = useState(false)
  useEffect(() => () => pool.stop(), [pool])
  const read = useCallback(
    async (file: File): Promise<Read> => {
      if (file.size > mostBytes)
        return {
          ok: false,
          message: `${file.name} is larger than ${mostBytes / 1e6} MB: a year by the hour is about 2 MB.`,
        }
      setBusy(true)
      const late = setTimeout(() => pool.stop(), mostMs)
      const outcome = await pool
        .run(({ api }) => api.read(file))
        .catch((error: unknown) => (error instanceof DOMException ? tooLong : null))
      clearTimeout(late)
      setBusy(false)
      if (!outcome) return { ok: false, message: `${file.name} could not be read. Load the page again.` }
      return outcome.ok
        ? { ok: true, ...outcome.value }
        : {
            ok: false,
            message: `${file.name}: ${outcome.faults.map(f => `${f.path === '$' ? 'the file' : f.path} ${f.message}`).join('; ')}.`,
          }
    },
    [pool],
  )
  return { read, busy }
}
