import { Box, Button, Chip, FormHelperText, ToggleButton, ToggleButtonGroup } from '@mui/material'
import { FileUp, Gauge } from 'lucide-react'
import { useState } from 'react'
import { judgedEntry, rangeText, togetherText } from '@/core/commission/judge'
import { type Asked, instruments, type Test } from '@/core/commission/tests'
import { typedRead } from '@/core/commission/typed'
import type { Read, TestEntry } from '@/core/job/test-log'
import { type Fault, fail, fault, ok } from '@/core/outcome'
import { FileButton } from '../common/FileButton'
import { Column, Quiet, Row } from '../common/pieces'
import { Form, OtherFaults } from '../form/Form'
import { LineField } from '../form/inputs'
import { saidOf, useField } from '../form/useField'
import { useSheet } from '../form/useSheet'
import { useWorkspace } from '../workspace/store'
import { Dial, type Shown } from './Dial'
import { ProbePicture } from './ProbePicture'
import type { Bench } from './useBench'
import { useRecordTest } from './useTests'

interface Typed {
  r: string[]
  simulated: string[]
  ran: string[]
  instrument: string
}
type ReadFacts = Omit<Extract<TestEntry, { kind: 'read' }>, 'id' | 'test' | 'by' | 'at' | 'on'>

/** A day by the second is a few megabytes. */
const largestSeries = 20_000_000
const lastInstrument = (jobId: string) => `spillway.instrument.${jobId}`
const textOf = (value: number | string | undefined) => (value === undefined ? '' : String(value))

/** The readings of a test: typed where they are taken, with what is expected beside each; or read by a simulated instrument. */
export function TestForm({
  test,
  bench,
  onWritten,
}: {
  test: Test
  bench: Bench | null
  onWritten: () => void
}) {
  const id = useWorkspace(s => s.id)
  const say = useWorkspace(s => s.say)
  const record = useRecordTest()
  const [at, setAt] = useState(0)
  const loads = test.together.find(t => t.by === 'watts')?.loads ?? []
  const sheet = useSheet<Typed, ReadFacts>({
    values: {
      r: test.asks.map(() => ''),
      simulated: [],
      ran: loads.map(l => l.id),
      instrument: typeof localStorage === 'undefined' ? '' : (localStorage.getItem(lastInstrument(id)) ?? ''),
    },
    keep: `spillway.test.${id}.${test.id}`,
    read: typed => {
      const faults: Fault[] = []
      const readings = test.asks.flatMap((asked, n): Read[] => {
        const said = typed.r[n] ?? ''
        if (!said.trim() && asked.optional) return []
        const got = typedRead(said, asked)
        if ('value' in got) return [{ key: asked.key, value: got.value }]
        faults.push(fault(`r[${n}]`, got.problem))
        return []
      })
      if (faults.length) return fail(...faults)
      const ran = loads.length && typed.ran.length < loads.length ? typed.ran : undefined
      return ok({
        ...judgedEntry(test, readings, ran),
        ...(typed.simulated.some((value, n) => value !== '' && value === typed.r[n]) && {
          simulated: true as const,
        }),
        ...(typed.instrument.trim() && { instrument: typed.instrument.trim() }),
      })
    },
    save: facts => {
      if (facts.instrument) localStorage.setItem(lastInstrument(id), facts.instrument)
      return record(test, facts)
    },
    done: onWritten,
  })
  const asked = test.asks[at] ?? test.asks[0]
  const [shown, setShown] = useState<Shown | null>(null)
  const take = (read: readonly Shown[]) => {
    const typed = sheet.form.getValues()
    const simulated = test.asks.map((_, n) => typed.simulated[n] ?? '')
    for (const { asked: a, value } of read) {
      const n = test.asks.indexOf(a)
      simulated[n] = String(value)
      sheet.form.setValue(`r.${n}`, String(value), { shouldDirty: true })
    }
    sheet.form.setValue('simulated', simulated)
    setShown(read.at(-1) ?? null)
    // what is read next comes to hand by itself
    const now = sheet.form.getValues().r
    const next = test.asks.findIndex((a, n) => n > at && !a.optional && !(now[n] ?? '').trim())
    if (next > 0 && !read.some(r => r.notice)) setAt(next)
  }
  /** Load and watt-hours out of a meter’s own series. */
  const fromSeries = async (file: File) => {
    if (file.size > largestSeries)
      return say(`${file.name} is too large for a capacity test: ${largestSeries / 1e6} MB at most.`)
    const { dischargeIn } = await import('@/core/commission/series')
    const read = dischargeIn(await file.text())
    if (!read.ok) return say(`${file.name}: ${read.faults.map(f => f.message).join('; ')}`)
    const figures: Record<string, number> = { loadW: read.value.loadW, 'Wh out': read.value.deliveredWh }
    for (const [n, a] of test.asks.entries()) {
      const value = figures[a.key]
      if (value !== undefined) sheet.form.setValue(`r.${n}`, String(Math.round(value)), { shouldDirty: true })
    }
    say(`${file.name}: ${Math.round(read.value.deliveredWh)} Wh in ${read.value.hours.toFixed(1)} h.`)
  }
  return (
    <Form sheet={sheet} label={`Readings: ${test.text}`}>
      {asked && <ProbePicture asked={asked} />}
      <Box
        sx={{
          display: 'grid',
          gap: 1.5,
          gridTemplateColumns: 'repeat(auto-fit, minmax(min(100%, 150px), 1fr))',
          alignItems: 'start',
        }}
      >
        {test.asks.map((a, n) => (
          <Box key={a.key} onFocus={() => setAt(n)} sx={a.choices ? { gridColumn: '1 / -1' } : undefined}>
            {a.choices ? (
              <Seen name={`r.${n}`} asked={a} />
            ) : (
              <Figure name={`r.${n}`} asked={a} current={n === at} />
            )}
          </Box>
        ))}
      </Box>
      {loads.length > 1 && <Ran loads={loads} />}
      <Wanted test={test} />
      {bench && asked && <Dial bench={bench} test={test} asked={asked} shown={shown} onShown={take} />}
      {test.asks.some(a => a.unit !== null) && (
        <LineField
          name="instrument"
          label="Instrument, by its number"
          most={60}
          help={asked ? instruments[asked.instrument].mind : undefined}
        />
      )}
      {test.group === 'capacity' && (
        <FileButton
          what="A meter’s series of the discharge"
          accept=".csv,.txt,text/csv"
          startIcon={<FileUp size={18} aria-hidden />}
          onFiles={([file]) => (file ? fromSeries(file) : undefined)}
        >
          From a meter’s file
        </FileButton>
      )}
      <OtherFaults />
      <Button type="submit" variant="contained" startIcon={<Gauge size={20} aria-hidden />}>
        Write down
      </Button>
    </Form>
  )
}

/** What is expected of the readings together; of watts, by what is ticked. */
function Wanted({ test }: { test: Test }) {
  const { value } = useField('ran')
  const ran = Array.isArray(value) ? (value as string[]) : undefined
  const said = [...new Set(test.together.map(t => togetherText(t, ran)))]
  if (!said.length) return null
  return (
    <Box component="ul" aria-label="Expected together" sx={{ m: 0, pl: 2.5 }}>
      {said.map(s => (
        <Quiet key={s} component="li">
          {s}
        </Quiet>
      ))}
    </Box>
  )
}

function Figure({ name, asked, current }: { name: string; asked: Asked; current: boolean }) {
  const showWorking = useWorkspace(s => s.showWorking)
  const { expected, unit } = asked
  return (
    <>
      <LineField
        name={name}
        label={`${asked.name}${unit ? `, ${unit}` : ''}${asked.optional ? ' (if at hand)' : ''}`}
        most={24}
      />
      {asked.when && <Quiet>{asked.when.says}</Quiet>}
      {expected && (
        <Quiet>
          {rangeText(expected, unit)}{' '}
          <Button
            size="small"
            sx={{ minWidth: 0, p: 0.25 }}
            aria-label={`Why ${asked.name} is expected so`}
            aria-haspopup="dialog"
            onClick={() => showWorking(expected.working)}
          >
            why
          </Button>
        </Quiet>
      )}
      {current && <Box aria-hidden sx={{ height: 3, borderRadius: 1, bgcolor: 'primary.main' }} />}
    </>
  )
}

/** What was seen, one of a few words. */
function Seen({ name, asked }: { name: string; asked: Asked }) {
  const { value, set, problem, id } = useField(name, asked.name)
  return (
    <Column>
      <b id={`${id}-name`}>{asked.name}</b>
      <ToggleButtonGroup
        exclusive
        orientation="vertical"
        fullWidth
        value={textOf(value as string)}
        onChange={(_, next) => set(next ?? '')}
        aria-labelledby={`${id}-name`}
      >
        {asked.choices?.map(c => (
          <ToggleButton
            key={c}
            value={c}
            sx={{ minHeight: 48, textTransform: 'none', justifyContent: 'flex-start' }}
          >
            {c}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      {problem && (
        <FormHelperText error role="alert">
          {saidOf(asked.name, problem)}
        </FormHelperText>
      )}
    </Column>
  )
}

/** Which of the loads ran meanwhile. */
function Ran({ loads }: { loads: readonly { id: string; name: string; W: number }[] }) {
  const { value, set } = useField('ran', 'What ran')
  const ran = Array.isArray(value) ? (value as string[]) : []
  return (
    <Column>
      <b>What ran meanwhile</b>
      <Row>
        {loads.map(l => {
          const on = ran.includes(l.id)
          return (
            <Chip
              key={l.id}
              clickable
              color={on ? 'primary' : 'default'}
              variant={on ? 'filled' : 'outlined'}
              aria-pressed={on}
              label={`${on ? '✓ ' : ''}${l.name}`}
              onClick={() => set(on ? ran.filter(r => r !== l.id) : [...ran, l.id])}
              sx={{ minHeight: 40 }}
            />
          )
        })}
      </Row>
    </Column>
  )
}
