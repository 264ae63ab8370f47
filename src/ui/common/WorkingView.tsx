import { shown } from '@/core/units/format'
import type { Provenance, TableRow, Working, WorkingValue } from '@/core/working'
import styles from './WorkingView.module.css'

/** Shows a working as the core traced it: formula, inputs with where they came from, steps, sources, the trade's rule. */
export function WorkingView({ working, level = 2 }: { working: Working; level?: number }) {
  const Heading = level === 2 ? 'h2' : 'h3'
  return (
    <section className={styles.working}>
      <Heading>{working.title}</Heading>
      <div className={styles.formula}>
        {working.formula.map(line => (
          <p key={line}>{line}</p>
        ))}
      </div>
      {working.inputs.length > 0 && <Values caption="Inputs" values={working.inputs} level={level} />}
      {working.steps.length > 0 && <Values caption="Worked out" values={working.steps} level={level} />}
      {working.rows && working.rows.length > 0 && <Rows rows={working.rows} />}
      {working.ruleOfThumb && (
        <p>
          <b>Rule of thumb: </b>
          {working.ruleOfThumb}
        </p>
      )}
      {working.references.length > 0 && (
        <p>
          <b>From: </b>
          {working.references.join('; ')}
        </p>
      )}
      {working.notes?.map(note => (
        <p key={note}>
          <b>Mind: </b>
          {note}
        </p>
      ))}
      {working.notCovered.length > 0 && (
        <p className={styles.aside}>
          <b>Not covered: </b>
          {working.notCovered.join(' ')}
        </p>
      )}
    </section>
  )
}

function Rows({ rows }: { rows: TableRow[] }) {
  return (
    <table className={styles.values}>
      <caption>Looked up</caption>
      <tbody>
        {rows.map(r => (
          <tr key={`${r.table} ${r.row} ${r.column}`}>
            <th scope="row">
              {r.row}
              {r.column && `, ${r.column}`}
              <span>{r.table}</span>
            </th>
            <td>{r.value}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

function Values({ caption, values, level }: { caption: string; values: WorkingValue[]; level: number }) {
  return (
    <table className={styles.values}>
      <caption>{caption}</caption>
      <tbody>
        {values.map((v, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: two lines may carry the same label, and the list never reorders
          <tr key={`${v.label}-${i}`}>
            <th scope="row">
              {v.label}
              {v.provenance && <span>{provenanceText(v.provenance)}</span>}
              {v.working && (
                <details>
                  <summary>How it is worked out</summary>
                  <WorkingView working={v.working} level={level + 1} />
                </details>
              )}
            </th>
            <td data-words={typeof v.value === 'string'}>
              {shown(v.value, v.unit)}
              {v.arithmetic && <span>= {v.arithmetic}</span>}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

const provenanceText = ({ from, on, document }: Provenance) =>
  [from === 'job' ? 'set on this job' : from, document, on].filter(Boolean).join(', ')
