import { Box, Button, LinearProgress, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material'
import dynamic from 'next/dynamic'
import { startTransition, useEffect, useState } from 'react'
import type { Equipment } from '@/core/equipment'
import type { Labour } from '@/core/hookup/labour'
import { outOf100 } from '@/core/outage/words'
import type { Found, SearchResult } from '@/core/search/front'
import type { Stock } from '@/core/search/stock'
import { labourRate, type Wishes, wishesSchema } from '@/core/search/wishes'
import { figure, quantity } from '@/core/units/format'
import { DataTable } from '../common/DataTable'
import { Fold } from '../common/Fold'
import { Problem } from '../common/Problem'
import { Card, Column, Empty, Quiet, Row } from '../common/pieces'
import { useFirm } from '../equipment/useEquipment'
import { useAddOption } from '../estimate/useEstimate'
import { Check } from '../form/Check'
import { EditFigure } from '../form/EditField'
import { useWorkspace } from '../workspace/store'
import { useSearch } from './useSearch'
import { useServerSearch } from './useServerSearch'

const room = <Box sx={{ height: 240 }} />
const loadChart = () => import('./FrontChart').then(m => m.FrontChart)
const FrontChart = dynamic(loadChart, {
  loading: () => room,
})

const wishNames = {
  automatic: 'Must start by itself',
  useOwned: 'Uses what they own',
  noGenerator: 'No generator',
  onePerson: 'One person can carry each part',
  fromStock: 'Only what is in stock',
} as const
const budget = wishesSchema.shape.mostPrice.unwrap()

/** The search over the catalogue: wishes, progress, the front, why the rest is left out; a design is taken up by one press. */
export function SearchDesk({
  catalogue,
  stock,
  labour,
}: {
  catalogue: Equipment[]
  stock: Stock
  labour: Labour
}) {
  const job = useWorkspace(s => s.job)
  const jobId = useWorkspace(s => s.id)
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const [wishes, setWishes] = useState<Wishes>(() => ({
    ...wishesSchema.parse({}),
    labour,
    automatic: job.brief.automatic === 'must',
    ...(job.brief.budget !== undefined && job.brief.budget > 0 && { mostPrice: job.brief.budget }),
  }))
  const payAtMost = (mostPrice?: number) => {
    setWishes({ ...wishes, mostPrice })
    return []
  }
  const addOption = useAddOption()
  const here = useSearch()
  const there = useServerSearch(jobId)
  const busy = here.busy || there.busy
  const result = there.result ?? here.result
  const sentence = there.result ? there.sentence : here.sentence
  const operationOf = async (found: Found) => {
    const [{ adopted }, { spaceOf }] = await Promise.all([
      import('@/core/search/adopt'),
      import('@/core/search/space'),
    ])
    const operation = adopted(
      spaceOf(there.result ? (there.job ?? job) : job, catalogue, wishes),
      found.design,
    )
    if (!operation) say('This design is no longer there: search again.')
    return operation
  }
  const takeUp = async (found: Found) => {
    const operation = await operationOf(found)
    if (!operation) return
    const faults = act({
      op: 'applyFix',
      label: `Take up ${found.name}`.slice(0, 160),
      operations: [operation],
    })
    say(
      faults.length
        ? faults.map(f => f.message).join('; ')
        : `Taken up: ${found.name}. Undo brings back what was.`,
    )
  }
  const offer = async (found: Found) => {
    const take = await operationOf(found)
    if (take)
      say(
        await addOption({
          id: crypto.randomUUID(),
          name: found.name.slice(0, 120),
          from: { kind: 'found', take },
        }),
      )
  }
  return (
    <Card id="search-designs" title="Search designs">
      <Quiet>
        Every source, arrangement, hook-up, generator and number of modules of the catalogue, against the
        picked circuits and this outage. What a check stops is dropped, with the reason counted.
      </Quiet>
      <Row sx={{ columnGap: 2 }}>
        {(Object.keys(wishNames) as (keyof typeof wishNames)[]).map(key => (
          <Check
            key={key}
            label={wishNames[key]}
            checked={wishes[key]}
            onChange={checked => setWishes({ ...wishes, [key]: checked })}
          />
        ))}
        <Box sx={{ width: 190 }}>
          <EditFigure
            label="At most"
            unit="$"
            value={wishes.mostPrice}
            schema={budget}
            help="Parts and labour; empty: any"
            onCommit={payAtMost}
            onEmpty={payAtMost}
          />
        </Box>
      </Row>
      <Row>
        {busy ? (
          <Button
            variant="contained"
            onClick={() => {
              here.stop()
              void there.cancel()
            }}
          >
            Stop the search
          </Button>
        ) : (
          <>
            <Button
              variant="contained"
              disableRipple
              onClick={() => {
                // the drawing is fetched while the search goes on
                void loadChart()
                there.forget()
                void here.run(job, catalogue, stock, wishes)
              }}
            >
              Search here
            </Button>
            <Button
              variant="outlined"
              onClick={() => {
                void loadChart()
                void there.run(wishes)
              }}
            >
              Search on the server
            </Button>
          </>
        )}
      </Row>
      {busy && (
        <div role="status" aria-live="polite">
          <LinearProgress
            variant="determinate"
            value={100 * (here.busy ? here.done : there.done)}
            aria-label="Search"
          />
          <Quiet>{here.busy ? here.what : there.what}</Quiet>
        </div>
      )}
      <Problem>{here.trouble ?? there.trouble}</Problem>
      {!busy && here.what === 'Stopped' && !result && <Quiet>Stopped. Nothing was changed.</Quiet>}
      {result && (
        <Results
          result={result}
          sentence={sentence}
          ms={there.result ? null : here.ms}
          onTake={takeUp}
          onOption={offer}
        />
      )}
    </Card>
  )
}

const measures = {
  price: { title: 'Price', unit: '$' },
  weight: { title: 'Weight', unit: 'lb' },
  hours: { title: 'Labour', unit: 'h' },
} as const
type Measure = keyof typeof measures

function Results({
  result,
  sentence,
  ms,
  onTake,
  onOption,
}: {
  result: SearchResult
  sentence: string
  ms: number | null
  onTake: (found: Found) => void
  onOption: (found: Found) => void
}) {
  const [by, setBy] = useState<Measure>('price')
  // the sentence at once, then the table, then the drawing: each a short task of its own
  const [stage, setStage] = useState(0)
  useEffect(() => {
    if (stage < 2) startTransition(() => setStage(stage + 1))
  }, [stage])
  const front = result.front.filter(f => f.bestBy.includes(by))
  return (
    <Column data-found={result.front.length}>
      <Typography variant="h2" component="p">
        {sentence}
      </Typography>
      <Quiet>
        {result.bounded.toLocaleString('en-US')} kinds were decided in closed form,{' '}
        {result.simulated.toLocaleString('en-US')} simulated, {result.finals.toLocaleString('en-US')} to the
        last of {result.draws} draws, seed {result.seed}
        {ms === null ? ', on the server' : `, in ${figure(ms / 1000)} s here`}. Price: catalogue, small parts,
        and labour at {quantity(labourRate, '$')} an hour (assumed). An overload counts as if no generator
        carried the house.
      </Quiet>
      {result.always.map(why => (
        <Quiet key={why.id}>Stays whatever the design: {why.sentence}</Quiet>
      ))}
      {result.front.length > 0 && (
        <>
          <ToggleButtonGroup
            exclusive
            size="small"
            aria-label="What is drawn against chance"
            value={by}
            onChange={(_, m: Measure | null) => m && setBy(m)}
          >
            {(Object.keys(measures) as Measure[]).map(m => (
              <ToggleButton key={m} value={m}>
                {measures[m].title} against chance
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
          {stage > 1 ? (
            <FrontChart
              front={front}
              all={result.front}
              by={by}
              title={measures[by].title}
              unit={measures[by].unit}
            />
          ) : (
            room
          )}
          <DataTable
            label="Designs of the front"
            stacked
            rows={stage > 0 ? front : []}
            idOf={f => f.name}
            columns={[
              {
                head: 'Of 100',
                figure: true,
                cell: f => (
                  <>
                    {outOf100(f.chance.fraction)}
                    <Quiet>
                      {outOf100(f.chance.low)}–{outOf100(f.chance.high)}
                    </Quiet>
                  </>
                ),
              },
              { head: 'Price', figure: true, cell: f => quantity(f.price, '$') },
              { head: 'Weight', figure: true, cell: f => quantity(f.weightLb, 'lb') },
              { head: 'Labour', figure: true, cell: f => quantity(f.hours, 'h') },
              {
                head: 'Design',
                cell: f => (
                  <>
                    {f.name}
                    {f.plans.map(p => (
                      <Quiet key={p}>{p}</Quiet>
                    ))}
                    <Quiet>
                      {f.toOrder.length ? `To order: ${f.toOrder.join(', ')}` : 'All of it in stock'}
                    </Quiet>
                  </>
                ),
              },
              {
                head: '',
                sx: { whiteSpace: 'nowrap' },
                cell: f => (
                  <>
                    <Button
                      size="small"
                      variant="outlined"
                      onClick={() => onTake(f)}
                      aria-label={`Take up ${f.name}`}
                    >
                      Take up
                    </Button>
                    <Button
                      size="small"
                      onClick={() => onOption(f)}
                      aria-label={`As an option of the estimate: ${f.name}`}
                    >
                      As an option
                    </Button>
                  </>
                ),
              },
            ]}
          />
        </>
      )}
      {result.front.length === 0 && (
        <p>
          Nothing of the catalogue lasts that long with these wishes. Drop circuits, shorten the outage, or
          let a wish go.
        </p>
      )}
      <Fold title="Why the others are left out" open={result.front.length === 0}>
        {() => (
          <ul>
            {result.leftOut.map(l => (
              <li key={l.family}>
                <strong>{l.family}:</strong> {l.sentence}
              </li>
            ))}
          </ul>
        )}
      </Fold>
      <Fold title="What was dropped, by reason">
        {() => (
          <DataTable
            label="What was dropped, by reason"
            rows={result.dropped}
            idOf={d => d.id}
            columns={[
              { head: 'Designs', figure: true, cell: d => d.designs.toLocaleString('en-US') },
              { head: 'Reason', cell: d => d.id },
              { head: 'For example', cell: d => d.sentence },
            ]}
          />
        )}
      </Fold>
    </Column>
  )
}

/** The desk with the firm's catalogue, asked for when it is opened. */
export default function SearchDeskHere() {
  const { data: firm, error } = useFirm()
  if (firm) return <SearchDesk catalogue={firm.equipment} stock={firm.stock} labour={firm.labour} />
  return error ? <Problem>{error.message}</Problem> : <Empty>The catalogue is being fetched…</Empty>
}
