'use client'
import { Alert, Box, Button, Link as MuiLink } from '@mui/material'
import { FileDown, FileUp } from 'lucide-react'
import Link from 'next/link'
import { useDeferredValue, useMemo, useState } from 'react'
import { plural, quantity, sentenceStart } from '@/core/units/format'
import { partsOfJob } from '@/core/work/parts'
import { partKinds, type Why } from '@/core/work/parts/line'
import { freeOf, type OrderLine, orderOf } from '@/core/work/parts/order'
import { amountOf, putUpOf } from '@/core/work/parts/words'
import { DataTable } from '../common/DataTable'
import { FileButton } from '../common/FileButton'
import { Card, Empty, FigureLink, Quiet, View } from '../common/pieces'
import { Takeaway } from '../common/Takeaway'
import { StockField } from '../equipment/StockField'
import { widths } from '../theme/tokens'
import { useWorkspace } from '../workspace/store'
import { BookReport } from './BookReport'
import { PriceDialog } from './PriceDialog'
import { useBook, useFirmParts, useFirmPartsChanges } from './useFirmParts'
import { WorkCards } from './WorkCards'

/** What a job takes: parts less the stock, in the cheapest put-ups of the price book, each with why; tools and hours. */
export function PartsView({ today, firm }: { today: string; firm: string }) {
  const id = useWorkspace(s => s.id)
  const revision = useWorkspace(s => s.revision)
  const title = useWorkspace(s => s.job.title)
  const job = useDeferredValue(useWorkspace(s => s.job))
  const { data, error } = useFirmParts()
  const change = useFirmPartsChanges()
  const book = useBook()
  const [pricing, setPricing] = useState<OrderLine | null>(null)
  const parts = useMemo(() => partsOfJob(job), [job])
  const order = useMemo(
    () => orderOf([parts], data?.prices ?? [], data ? freeOf(data.stock, data.others) : {}),
    [parts, data],
  )
  const kept = Object.keys(data?.own ?? {}).length
  // before it is known what they may see, nobody is shown a column of money
  const priced = Array.isArray(data?.prices)
  const count = async (key: string, next: number | null) => {
    try {
      await change.mutateAsync({ act: 'count', key, was: data?.stock[key] ?? null, count: next })
      return null
    } catch (failed) {
      return { message: failed instanceof Error ? failed.message : 'was not counted' }
    }
  }
  return (
    <View
      title="Parts"
      lead="Worked out from the plan and the wires: nothing is entered twice, nothing bought that is there."
      tools={
        <Takeaway formats={['pdf', 'csv']} hrefOf={format => `/api/jobs/${id}/order?format=${format}`} />
      }
    >
      <Box sx={{ display: 'none', '@media print': { display: 'block' } }}>
        <b>{title}</b>. {firm}, revision {revision}, {today}.
      </Box>
      {error && (
        <Alert severity="warning">
          Prices and stock could not be read: {error.message} The list stands without them.
        </Alert>
      )}
      {!order.lines.length && (
        <Empty>
          <h2>Nothing is to be bought</h2>
          <p>Choose a source and a hook-up: what they take is listed here.</p>
        </Empty>
      )}
      {order.lines.length > 0 && (
        <Card
          title="Together"
          tools={
            <>
              {data && (
                <Button
                  className="no-print"
                  size="small"
                  onClick={() => change.mutate({ act: kept ? 'release' : 'reserve' })}
                >
                  {kept ? 'Let go what is kept' : 'Keep from stock for this job'}
                </Button>
              )}
              {priced && (
                <>
                  <Button
                    className="no-print"
                    size="small"
                    startIcon={<FileDown size={16} aria-hidden />}
                    href="/api/prices"
                  >
                    Price book
                  </Button>
                  <FileButton
                    className="no-print"
                    size="small"
                    startIcon={<FileUp size={16} aria-hidden />}
                    what="A price book as CSV"
                    accept=".csv,text/csv"
                    onFiles={async ([file]) => book.mutate(await file.text())}
                  >
                    Read a book
                  </FileButton>
                </>
              )}
            </>
          }
        >
          <p aria-live="polite">
            {priced ? (
              <>
                <b>{quantity(order.knownUsd, '$')}</b> for {plural(order.lines.length, 'part')}
                {order.unpriced > 0 && <>, {order.unpriced} of them without a price</>}
                {order.oldestOn && <>; the oldest price is of {order.oldestOn}</>}.
              </>
            ) : (
              <>{plural(order.lines.length, 'part')}.</>
            )}
            {kept > 0 && <> Of the stock, {plural(kept, 'part')} kept for this job.</>}
          </p>
          {change.error && <Alert severity="error">{change.error.message}</Alert>}
          <BookReport book={book} />
        </Card>
      )}
      {Object.entries(partKinds).map(([kind, { name }]) => {
        const lines = order.lines.filter(l => l.kind === kind)
        return (
          lines.length > 0 && (
            <Card key={kind} title={name}>
              <DataTable
                label={name}
                rows={lines}
                stacked="labelled"
                // the last figure stands alone at the head of a block: a price is one by its sign
                sx={{
                  [`@media (max-width: ${widths.phone}px)`]: {
                    '& td[data-head="Order"]:last-of-type::before': {
                      content: '"order "',
                      color: 'text.secondary',
                    },
                  },
                }}
                idOf={l => l.key}
                rowProps={l => ({ 'data-part': l.key })}
                columns={[
                  { head: 'Part', names: true, cell: l => <Named line={l} jobId={id} /> },
                  { head: 'Needed', figure: true, cell: l => amountOf(l.needed, l.unit) },
                  {
                    head: 'In stock',
                    figure: true,
                    sx: { width: 92, '@media print': { display: 'none' } },
                    cell: l => (
                      <StockField
                        name={l.name}
                        count={data?.stock[l.key]}
                        onCount={next => count(l.key, next)}
                      />
                    ),
                  },
                  { head: 'Order', figure: true, cell: l => amountOf(l.toOrder, l.unit) },
                  ...(priced
                    ? [
                        {
                          head: 'As',
                          cell: (l: OrderLine) =>
                            l.bought.map(b => (
                              <div key={`${b.quantity} ${b.supplier}`}>
                                {putUpOf(b, l.unit)}
                                {b.supplier && <Quiet component="span"> {b.supplier}</Quiet>}
                              </div>
                            )),
                        },
                        {
                          head: 'Price',
                          figure: true,
                          cell: (l: OrderLine) => (
                            <FigureLink label={`Price of ${l.name}`} onClick={() => setPricing(l)}>
                              {l.toOrder === 0
                                ? 'from stock'
                                : l.priceUsd === null
                                  ? 'ask'
                                  : quantity(l.priceUsd, '$')}
                            </FigureLink>
                          ),
                        },
                      ]
                    : []),
                ]}
              />
            </Card>
          )
        )
      })}
      <WorkCards job={job} firm={data} />
      {pricing && (
        <PriceDialog
          line={pricing}
          today={today}
          known={data?.prices?.filter(p => p.part === pricing.key) ?? []}
          onClose={() => setPricing(null)}
        />
      )}
    </View>
  )
}

const most = 1

/** A part with why it is there; each reason leads to its place. */
function Named({ line, jobId }: { line: OrderLine; jobId: string }) {
  const [all, setAll] = useState(false)
  const why = all ? line.why : line.why.slice(0, most)
  const swaps = line.substitutes.filter(s => s.inStock > 0)
  return (
    <>
      {sentenceStart(line.name)}
      <Quiet component="div" sx={{ fontWeight: 400, maxWidth: 460 }}>
        {why.map((w, n) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: two reasons may read alike
          <div key={n}>
            <MuiLink component={Link} href={hrefOf(jobId, w)} color="inherit" underline="hover">
              {w.text}
            </MuiLink>
          </div>
        ))}
        {line.why.length > most && (
          <MuiLink component="button" type="button" className="no-print" onClick={() => setAll(!all)}>
            {all ? 'fewer' : `and ${line.why.length - most} more`}
          </MuiLink>
        )}
        {swaps.map(s => (
          <div key={s.key}>
            In its place: {s.inStock} of {s.key} in stock.
          </div>
        ))}
      </Quiet>
    </>
  )
}

const hrefOf = (jobId: string, { at }: Why) =>
  `/jobs/${jobId}/${at.view}${at.view === 'wire' && at.of ? `#way-${encodeURIComponent(at.of)}` : ''}`
