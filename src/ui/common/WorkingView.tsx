import { Alert } from '@mui/material'
import { shown } from '@/core/units/format'
import type { Provenance, TableRow, Working, WorkingValue } from '@/core/working'
import { DataTable } from './DataTable'
import { Fold } from './Fold'
import { Column, Quiet } from './pieces'

/** Shows a working as the core traced it: formula, inputs with where they came from, steps, sources, the trade's rule. */
export function WorkingView({ working, level = 2 }: { working: Working; level?: number }) {
  const Heading = level === 2 ? 'h2' : 'h3'
  return (
    <Column component="section" spacing={1} sx={{ overflowWrap: 'anywhere' }}>
      <Heading>{working.title}</Heading>
      <Alert>
        {working.formula.map(line => (
          <p key={line}>{line}</p>
        ))}
      </Alert>
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
        <Quiet>
          <b>Not covered: </b>
          {working.notCovered.join(' ')}
        </Quiet>
      )}
    </Column>
  )
}

const Rows = ({ rows }: { rows: TableRow[] }) => (
  <DataTable
    label="Looked up"
    rows={rows}
    columns={[
      {
        head: <b>Looked up</b>,
        names: true,
        sx: { fontWeight: 400 },
        cell: r => (
          <>
            {r.row}
            {r.column && `, ${r.column}`}
            <Quiet>{r.table}</Quiet>
          </>
        ),
      },
      { head: ' ', figure: true, sx: { fontWeight: 700 }, cell: r => r.value },
    ]}
  />
)

const Values = ({ caption, values, level }: { caption: string; values: WorkingValue[]; level: number }) => (
  <DataTable
    label={caption}
    rows={values}
    columns={[
      {
        head: <b>{caption}</b>,
        names: true,
        sx: { fontWeight: 400 },
        cell: v => {
          const { working } = v
          return (
            <>
              {v.label}
              {v.provenance && <Quiet>{provenanceText(v.provenance)}</Quiet>}
              {working && (
                <Fold title="How it is worked out">
                  {() => <WorkingView working={working} level={level + 1} />}
                </Fold>
              )}
            </>
          )
        },
      },
      {
        head: ' ',
        figure: true,
        sx: { minWidth: '7em', fontWeight: 700, whiteSpace: 'normal' },
        cell: v => (
          <>
            {shown(v.value, v.unit)}
            {v.arithmetic && <Quiet>= {v.arithmetic}</Quiet>}
          </>
        ),
      },
    ]}
  />
)

const provenanceText = ({ from, on, document }: Provenance) =>
  [from === 'job' ? 'set on this job' : from, document, on].filter(Boolean).join(', ')
