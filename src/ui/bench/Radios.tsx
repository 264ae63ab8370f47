'use client'
import styles from './Fields.module.css'

interface Props {
  name: string
  label: string
  value: unknown
  options: readonly { value: string | number; name: string }[]
  onChange: (value: string | number) => void
  help?: string
  problem?: string
}

/** One of a few, all in sight; arrow keys step. */
export function Radios({ name, label, value, options, onChange, help, problem }: Props) {
  return (
    <fieldset className={styles.radios}>
      <legend>{label}</legend>
      <div>
        {options.map((o, n) => (
          <label key={o.value} data-on={o.value === value}>
            <input
              type="radio"
              id={n === 0 ? name : undefined}
              name={name}
              checked={o.value === value}
              onChange={() => onChange(o.value)}
            />
            {o.name}
          </label>
        ))}
      </div>
      {(problem ?? help) && <p data-problem={problem ? true : undefined}>{problem ?? help}</p>}
    </fieldset>
  )
}
