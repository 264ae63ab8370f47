import { Button, Paper } from '@mui/material'
import { memo } from 'react'
import type { Chance } from '@/core/outage/chance'
import type { Plan } from '@/core/outage/plan'
import type { CourseTrace } from '@/core/outage/trace'
import { accountRows, outOf100 } from '@/core/outage/words'
import { duration, figure, plural, quantity } from '@/core/units/format'
import { DataTable } from '../common/DataTable'
import { Fold } from '../common/Fold'
import { markGlyphs } from './OutageChart'

interface Props {
  plan: Plan
  trace: CourseTrace
  chance: Chance | null
  name: string
}

const sides = { in: 'In', out: 'To', lost: 'Lost', left: 'Left' } as const

/** The tables behind the drawing: the account, dark hours, what happens when, overloads; and the CSV. */
export const OutageTables = memo(function OutageTables({ plan, trace, chance, name }: Props) {
  const download = async () => {
    const { traceCsv } = await import('@/core/formats/outage-csv')
    const url = URL.createObjectURL(new Blob([traceCsv(plan, trace, chance)], { type: 'text/csv' }))
    const link = document.createElement('a')
    link.href = url
    link.download = `${name.toLowerCase().replace(/[^a-z0-9]+/g, '-')}-outage.csv`
    link.click()
    URL.revokeObjectURL(url)
  }
  const about = (mark: CourseTrace['marks'][number]): string => {
    if (mark.kind === 'trip') return plan.loads[mark.about]?.name ?? 'more than the source gives'
    if (mark.kind === 'let go' || mark.kind === 'back on')
      return mark.about === 2 ? 'should run' : mark.about === 3 ? 'may go' : ''
    if (mark.kind.startsWith('store') || mark.kind === 'full')
      return plan.stores.length > 1 ? (plan.stores[mark.about]?.name ?? '') : ''
    return ''
  }
  return (
    <Paper variant="outlined" sx={{ p: 1.5, contain: 'layout style' }}>
      <Fold title="Every watt-hour">
        {() => (
          <DataTable
            label="Every watt-hour"
            rows={[
              ...accountRows(plan, trace).map(r => [sides[r.side], r.name, quantity(r.Wh, 'Wh')]),
              [
                'Not accounted for',
                `${trace.account.residualFraction.toExponential(1)} of all that went through`,
                `${trace.account.residualWh.toExponential(1)} Wh`,
              ],
            ]}
            columns={[
              { head: 'Account', cell: ([side]) => side },
              { head: 'What', cell: ([, what]) => what },
              { head: 'Energy', figure: true, cell: ([, , Wh]) => Wh },
            ]}
          />
        )}
      </Fold>
      {chance && (
        <Fold title="Dark hours by circuit">
          {() => (
            <DataTable
              label="Dark hours by circuit"
              rows={[
                ...plan.unserved.map(u => ({
                  name: `${u.name}, not fed`,
                  tier: u.tier,
                  mean: quantity(plan.hours, 'h'),
                  high: quantity(plan.hours, 'h'),
                })),
                ...plan.circuits.map((c, n) => ({
                  name: c.name,
                  tier: c.tier,
                  mean: duration(chance.darkH[n]?.mean ?? 0),
                  high: duration(chance.darkH[n]?.high ?? 0),
                })),
              ]}
              columns={[
                { head: 'Circuit', cell: r => r.name },
                { head: 'Tier', cell: r => r.tier },
                { head: 'On average', figure: true, cell: r => r.mean },
                { head: 'In one of twenty, at least', figure: true, cell: r => r.high },
              ]}
            />
          )}
        </Fold>
      )}
      <Fold title="What happens when">
        {() =>
          trace.marks.length ? (
            <DataTable
              label="What happens when"
              rows={trace.marks}
              columns={[
                { head: 'Hour', figure: true, cell: m => quantity(m.hour, 'h') },
                { head: 'Mark', cell: m => markGlyphs[m.kind] },
                { head: 'What', cell: m => `${m.kind}${about(m) && `: ${about(m)}`}` },
              ]}
            />
          ) : (
            <p>Nothing: the store falls, and that is all.</p>
          )
        }
      </Fold>
      {chance && chance.tripKinds.length > 0 && (
        <Fold title={`Overloads, ${plural(chance.tripKinds.length, 'combination')}`}>
          {() => (
            <DataTable
              label="Overloads"
              rows={chance.tripKinds.slice(0, 12)}
              columns={[
                { head: 'Came on', cell: k => plan.loads[k.trigger]?.name ?? 'several at once' },
                { head: 'While this ran', cell: k => plan.loads[k.beside]?.name ?? 'nothing large' },
                { head: 'Of 100 outages', figure: true, cell: k => outOf100(k.draws / chance.draws) },
              ]}
            />
          )}
        </Fold>
      )}
      <Fold title="The store by the hour">
        {() => (
          <DataTable
            label="The store by the hour"
            rows={Array.from(trace.points.hour, (h, p) => ({ h, p })).filter(
              ({ p }) => p % Math.max(1, Math.ceil(trace.points.hour.length / 49)) === 0,
            )}
            columns={[
              { head: 'Hour', figure: true, cell: ({ h }) => `${figure(h)} h` },
              { head: 'Store', figure: true, cell: at('Wh', p => trace.points.levelWh[p]) },
              { head: 'Sun', figure: true, cell: at('W', p => trace.points.sunW[p]) },
              { head: 'Generator', figure: true, cell: at('W', p => trace.points.generatorW[p]) },
              {
                head: 'To loads',
                figure: true,
                cell: at('W', p => trace.points.tierW.reduce((all, t) => all + (t[p] ?? 0), 0)),
              },
              { head: 'Lost', figure: true, cell: at('W', p => trace.points.lostW[p]) },
            ]}
          />
        )}
      </Fold>
      <Button variant="outlined" onClick={download} sx={{ mt: 1 }}>
        Download as CSV
      </Button>
    </Paper>
  )
})

/** A figure of one point of the trace. */
const at =
  (unit: 'W' | 'Wh', of: (p: number) => number | undefined) =>
  ({ p }: { p: number }) =>
    quantity(of(p) ?? 0, unit)
