import { Alert, Box, Button, ButtonBase, Chip, LinearProgress } from '@mui/material'
import { judgedEntry, readingText } from '@/core/commission/judge'
import { restMin } from '@/core/commission/matrix'
import { runningTotal } from '@/core/commission/stand'
import { type MatrixRow, type MatrixSupply, supplies, type Test } from '@/core/commission/tests'
import { typedRead } from '@/core/commission/typed'
import { fail, fault, ok } from '@/core/outcome'
import { plural, quantity } from '@/core/units/format'
import { DataTable } from '../common/DataTable'
import { Column, Columns, Quiet, Row } from '../common/pieces'
import { Form, OtherFaults } from '../form/Form'
import { LineField } from '../form/inputs'
import { useSheet } from '../form/useSheet'
import { stateMarks } from './TestIndex'
import type { Bench } from './useBench'
import { useRest } from './useRest'
import { type Tests, useRecordTests } from './useTests'

const heads: Record<MatrixSupply, string> = { utility: 'Utility', off: 'Off', source: 'Source' }

interface Props {
  tests: Tests
  bench: Bench | null
  currentId: string | null
  onChoose: (testId: string) => void
}

/** Every circuit by every supply: what was read, what must stay dead, and the watts that add up against what the unit gives. */
export function Matrix({ tests, bench, currentId, onChoose }: Props) {
  const { list, stand } = tests
  const total = runningTotal(list.matrix, stand)
  const most = list.sourceW
  const served = list.matrix.filter(r => r.sourceW !== null)
  const dead = list.matrix.filter(r => r.sourceW === null)
  const column = (supply: MatrixSupply) => ({
    head: heads[supply],
    cell: (row: MatrixRow) => (
      <Cell row={row} supply={supply} tests={tests} currentId={currentId} onChoose={onChoose} />
    ),
  })
  const table = (
    <DataTable
      label="Circuits by supply"
      rows={served}
      idOf={r => r.circuitId}
      columns={[
        {
          head: 'Circuit',
          names: true,
          cell: r => (
            <Box sx={{ overflowWrap: 'anywhere' }}>
              {r.name}
              {r.compressor && <Rests circuitId={r.circuitId} stands={stand.tests} />}
            </Box>
          ),
        },
        ...supplies.map(column),
      ]}
    />
  )
  return (
    <Column>
      {most !== null && (
        <Box role="status" aria-label={`Together ${quantity(total, 'W')} of ${quantity(most, 'W')}`}>
          <Row sx={{ justifyContent: 'space-between' }}>
            <b>Together, as read: {quantity(total, 'W')}</b>
            <Quiet component="span">the source gives {quantity(most, 'W')}</Quiet>
          </Row>
          <LinearProgress
            variant="determinate"
            aria-hidden
            value={Math.min(100, (100 * total) / most)}
            sx={{ height: 12, borderRadius: 1 }}
          />
          {total > most && (
            <Alert severity="error">
              All of it at once is more than the source gives: what waits for what goes on the card.
            </Alert>
          )}
        </Box>
      )}
      {served.length > 0 && table}
      {dead.length > 0 && (
        <>
          <h3>Must stay dead on the source</h3>
          <AllDead tests={tests} bench={bench} rows={dead} />
          <Columns
            least={240}
            component="ul"
            aria-label="What must stay dead"
            sx={{ m: 0, p: 0, listStyle: 'none', gap: 0.75 }}
          >
            {dead.map(row => (
              <Box
                key={row.circuitId}
                component="li"
                sx={{ display: 'grid', gridTemplateColumns: '1fr 92px', gap: 1, alignItems: 'center' }}
              >
                <Box component="span" sx={{ overflowWrap: 'anywhere' }}>
                  {row.name}
                </Box>
                <Cell row={row} supply="source" tests={tests} currentId={currentId} onChoose={onChoose} />
              </Box>
            ))}
          </Columns>
        </>
      )}
    </Column>
  )
}

/** A compressor and its minutes: counted down where it ran a moment ago. */
function Rests({ circuitId, stands }: { circuitId: string; stands: Tests['stand']['tests'] }) {
  const left = useRest(circuitId, restMin, stands)
  return (
    <Quiet component="span" role={left === null ? undefined : 'timer'}>
      {' '}
      {left === null ? `rests ${restMin} min` : `wait ${left}`}
    </Quiet>
  )
}

function Cell({
  row,
  supply,
  tests: { list, stand },
  currentId,
  onChoose,
}: Omit<Props, 'bench'> & { row: MatrixRow; supply: MatrixSupply }) {
  const id = row.tests[supply]
  const test = id === null ? undefined : list.tests.find(t => t.id === id)
  if (!id || !test) return <Quiet component="span">–</Quiet>
  const now = stand.tests.get(id)
  const state = now?.state ?? 'open'
  const { icon: Mark, word, colour } = stateMarks[state]
  const shown =
    now?.read && state !== 'again'
      ? now.read.readings.map(r => readingText(r.value, test.asks.find(a => a.key === r.key)?.unit ?? null))
      : []
  return (
    <ButtonBase
      onClick={() => onChoose(id)}
      aria-label={`${test.text}: ${word}${shown.length ? `, ${shown.join(', ')}` : ''}`}
      aria-current={id === currentId ? 'step' : undefined}
      sx={{
        width: 1,
        minHeight: 44,
        px: 0.5,
        gap: 0.5,
        whiteSpace: 'nowrap',
        border: 1,
        borderColor: id === currentId ? 'primary.main' : 'divider',
        borderRadius: 1,
        font: 'inherit',
        justifyContent: 'flex-start',
        '&:focus-visible': { outline: '3px solid', outlineColor: 'primary.main' },
      }}
    >
      <Box component="span" sx={{ color: colour, display: 'inline-flex', flex: 'none' }}>
        <Mark size={16} aria-hidden />
      </Box>
      <Box component="span" sx={{ fontVariantNumeric: 'tabular-nums', textAlign: 'left' }}>
        {shown.length ? (
          shown.map(s => <div key={s}>{s}</div>)
        ) : (
          <Quiet component="span">
            {row.sourceW !== null && supply === 'source'
              ? `~${quantity(row.sourceW, 'W')}`
              : supply === 'utility'
                ? 'lives'
                : 'dead'}
          </Quiet>
        )}
      </Box>
    </ButtonBase>
  )
}

/** One after the other with the tester; the highest of all is written down for each that is still open. */
function AllDead({
  tests: { list, stand },
  bench,
  rows,
}: {
  tests: Tests
  bench: Bench | null
  rows: readonly MatrixRow[]
}) {
  const record = useRecordTests()
  const open = rows.flatMap(r =>
    list.tests.filter(t => t.id === r.tests.source && stand.tests.get(t.id)?.state !== 'passed'),
  )
  const written = (what: readonly { test: Test; value: number | string }[], simulated: boolean) =>
    record(
      what.map(({ test, value }) => ({
        test,
        facts: {
          ...judgedEntry(test, [{ key: test.asks[0]?.key ?? 'V', value }]),
          ...(simulated && { simulated: true as const }),
        },
      })),
      'What must stay dead on the source',
    )
  const sheet = useSheet<{ highest: string }, number>({
    values: { highest: '' },
    read: ({ highest }) => {
      const got = typedRead(highest, { unit: 'V' })
      return 'value' in got && typeof got.value === 'number'
        ? ok(got.value)
        : fail(fault('highest', 'problem' in got ? got.problem : 'must be volts'))
    },
    save: value => {
      if (value > 3)
        return [
          fault(
            'highest',
            `is ${quantity(value, 'V')}: that one is not dead. Write it down at its own circuit, so that it is known which`,
          ),
        ]
      return written(
        open.map(test => ({ test, value })),
        false,
      )
    },
    done: () => sheet.form.reset({ highest: '' }),
  })
  if (!open.length)
    return <Chip size="small" color="primary" label="all seen dead" sx={{ alignSelf: 'start' }} />
  const simulate = () => {
    if (!bench) return
    written(
      open.flatMap(test => bench.readAll(test).map(r => ({ test, value: r.value }))),
      true,
    )
  }
  return (
    <Form sheet={sheet} label="Read dead one after the other">
      <Row sx={{ alignItems: 'flex-start' }}>
        <LineField
          name="highest"
          label={`Highest of the ${plural(open.length, 'circuit')} that are open, V`}
          most={12}
          help="Each read with the tester, one after the other"
        />
        <Button type="submit" variant="outlined" sx={{ minHeight: 48 }}>
          All read dead
        </Button>
        {bench && (
          <Button onClick={simulate} sx={{ minHeight: 48 }}>
            By the simulated tester
          </Button>
        )}
      </Row>
      <OtherFaults />
    </Form>
  )
}
