import { useEffect, useState } from 'react'
import type { TestsStand } from '@/core/commission/stand'

const minuteMs = 60_000

/**
 * How long what hangs on a circuit still has to rest before it is fed again, as `4:32`: since it was read last on the utility or the source, by the clock of this device. Null where
 * it has rested.
 */
export function useRest(circuitId: string, restMin: number, stands: TestsStand['tests']): string | null {
  const last = ['utility', 'watts']
    .flatMap(kind => stands.get(`${kind}:${circuitId}`)?.history ?? [])
    .reduce((latest, e) => (e.kind === 'read' ? Math.max(latest, Date.parse(e.at)) : latest), 0)
  const until = last + restMin * minuteMs
  const [now, setNow] = useState<number | null>(null)
  useEffect(() => {
    setNow(Date.now())
    if (!restMin || Date.now() >= until) return
    const tick = setInterval(() => setNow(Date.now()), 1000)
    return () => clearInterval(tick)
  }, [until, restMin])
  // a clock that stands behind the one that wrote it down says nothing
  const left = now === null ? 0 : Math.min(restMin * minuteMs, until - now)
  if (left <= 0) return null
  const seconds = Math.ceil(left / 1000)
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`
}
