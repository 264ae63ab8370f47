'use client'
import styles from './Bench.module.css'
import { useUnitChoice } from './units'

/** Feet or metres, °F or °C: for typing and reading; nothing is rounded by it. */
export function UnitToggles() {
  const { length, temperature, setLength, setTemperature } = useUnitChoice()
  return (
    <div className={styles.toggles}>
      <Toggle label="Lengths in" value={length} of={['ft', 'm']} names={{}} onChange={setLength} />
      <Toggle
        label="Temperatures in"
        value={temperature}
        of={['F', 'C']}
        names={{ F: '°F', C: '°C' }}
        onChange={setTemperature}
      />
    </div>
  )
}

interface Props<T extends string> {
  label: string
  value: T
  of: readonly T[]
  names: Partial<Record<T, string>>
  onChange: (value: T) => void
}

function Toggle<T extends string>({ label, value, of, names, onChange }: Props<T>) {
  return (
    <fieldset aria-label={label}>
      {of.map(o => (
        <button key={o} type="button" aria-pressed={o === value} onClick={() => onChange(o)}>
          {names[o] ?? o}
        </button>
      ))}
    </fieldset>
  )
}
