import { get, set } from 'idb-keyval'
import { useDeferredValue, useEffect, useMemo, useState } from 'react'
import { conditionsOf } from '@/core/ask/outage-asked'
import type { Making } from '@/core/ask/want'
import { type FirstAnswer, firstAnswer, type Known } from '@/core/first/answer'
import { whoHere } from '../common/who'
import { type Firm, useFirm } from '../equipment/useEquipment'
import { useLibrary } from '../library/useLibrary'
import { useWorkspace } from '../workspace/store'

/** What a thing is made with: the library as the firm has it, the season, an id. */
export function useMaking(): Making & { trouble: string | null } {
  const { entries, trouble } = useLibrary()
  const { season } = conditionsOf(useWorkspace(s => s.job))
  return useMemo(
    () => ({ library: entries, season, newId: () => crypto.randomUUID(), trouble: trouble ?? null }),
    [entries, season, trouble],
  )
}

const nothing: Known = {}

export function useFirstAnswer(making: Making, known: Known = nothing): FirstAnswer {
  const job = useDeferredValue(useWorkspace(s => s.job))
  return useMemo(() => firstAnswer(job, making, known), [job, making, known])
}

const keptKey = () => `catalogue ${whoHere()}`

/** The firm's catalogue; without a connection as this machine had it last. */
export function useKeptFirm(): { firm: Firm | null; trouble: string | null } {
  const { data, error } = useFirm()
  const [kept, setKept] = useState<Firm | null>(null)
  useEffect(() => {
    if (data) void set(keptKey(), { ...data, by: whoHere() }).catch(() => {})
    else
      get<Firm>(keptKey())
        .then(firm => setKept(firm ?? null))
        .catch(() => {})
  }, [data])
  return { firm: data ?? kept, trouble: error && !kept ? error.message : null }
}
