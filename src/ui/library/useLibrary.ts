'use client'
import { useEffect, useState } from 'react'
import { library } from '@/core/loads/library'
import { merged, type Typical } from '@/core/loads/typical'
import { call } from '../api'

export interface FirmTypical {
  typical: Typical
  version: number
  by: string
}

/** Our typical loads with the firm's in their place; ours alone while the firm's cannot be reached. */
export function useLibrary(given?: FirmTypical[]) {
  const [firms, setFirms] = useState<FirmTypical[]>(given ?? [])
  const [trouble, setTrouble] = useState<string | null>(null)
  useEffect(() => {
    if (given) return
    void call<{ loads: FirmTypical[] }>('/api/loads', 'GET').then(answer => {
      if (answer.ok) setFirms(answer.data.loads)
      else setTrouble(`${answer.message} The firm’s own loads are missing here.`)
    })
  }, [given])
  return {
    entries: merged(
      library,
      firms.map(f => f.typical),
    ),
    firms,
    setFirms,
    trouble,
  }
}
