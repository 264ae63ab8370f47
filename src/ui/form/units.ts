import { useEffect } from 'react'
import { create } from 'zustand'
import { persist } from 'zustand/middleware'
import { celsiusOf, fahrenheitOf, feetOf, metresOf } from '@/core/units/convert'
import { quantity } from '@/core/units/format'
import type { UnitOfMeasure } from '@/core/working'
import { firmUnits } from '../common/today'

interface UnitChoice {
  length: 'ft' | 'm'
  temperature: 'F' | 'C'
  setLength: (length: 'ft' | 'm') => void
  setTemperature: (temperature: 'F' | 'C') => void
}

/** Which units a person types and reads charts in; what is computed with stays in feet and °C. */
export const useUnitChoice = create<UnitChoice>()(
  persist(
    set => ({
      length: 'ft',
      temperature: 'F',
      setLength: length => set({ length }),
      setTemperature: temperature => set({ temperature }),
    }),
    { name: 'spillway.units', skipHydration: true },
  ),
)

/** How a unit is typed and read: its sign, and the way there and back. */
export interface Scale {
  symbol: string
  shown: (value: number) => number
  read: (typed: number) => number
}

const plain = (symbol: string): Scale => ({ symbol, shown: v => v, read: v => v })
/** Per cent of a fraction: scaled on the decimal digits, so that 7 % is 0.07. */
const percent: Scale = {
  symbol: '%',
  shown: v => Number((v * 100).toPrecision(14)),
  read: v => Number((v / 100).toPrecision(14)),
}
const scales = {
  F: { symbol: '°F', shown: fahrenheitOf, read: celsiusOf },
  C: plain('°C'),
  m: { symbol: 'm', shown: metresOf, read: feetOf },
  ft: plain('ft'),
}

const signs = new Map<UnitOfMeasure, Scale>()

function sign(unit: UnitOfMeasure): Scale {
  const known = signs.get(unit)
  if (known) return known
  const scale = plain(unit === '$' ? '$' : quantity(0, unit).replace(/^0 ?/, ''))
  signs.set(unit, scale)
  return scale
}

/** The units that this person chose before, once the page answers: a server cannot know them. */
export function useChosenUnits(): void {
  useEffect(() => {
    const { name } = useUnitChoice.persist.getOptions()
    // who has not chosen reads as the firm does
    if (firmUnits() === 'metric' && name && localStorage.getItem(name) === null) {
      useUnitChoice.setState({ length: 'm', temperature: 'C' })
      localStorage.removeItem(name)
    }
    void useUnitChoice.persist.rehydrate()
  }, [])
}

export function useScale(unit: UnitOfMeasure): Scale {
  const length = useUnitChoice(s => s.length)
  const temperature = useUnitChoice(s => s.temperature)
  if (unit === 'C') return scales[temperature]
  if (unit === 'ft') return scales[length]
  return unit === 'fraction' ? percent : sign(unit)
}
