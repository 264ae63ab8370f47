'use client'
import { useState } from 'react'
import type { Equipment } from '@/core/equipment'
import type { Fault } from '@/core/outcome'
import type { Stock } from '@/core/search/stock'
import { call } from '../api'

/** The firm's catalogue as the server last told it, and what the last change could not do. */
export function useEquipment(given: Equipment[], counted: Stock) {
  const [items, setItems] = useState(given)
  const [stock, setStock] = useState(counted)
  const change = async (body: object): Promise<{ message: string; faults: Fault[] } | null> => {
    const answer = await call<{ equipment: Equipment[]; stock: Stock }>('/api/equipment', 'POST', body)
    if (!answer.ok) return { message: answer.message, faults: answer.faults }
    setItems(answer.data.equipment)
    setStock(answer.data.stock)
    return null
  }
  return { items, stock, change }
}
