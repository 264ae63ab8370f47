import { Alert, Button } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { useWatch } from 'react-hook-form'
import { conditionsOf } from '@/core/ask/outage-asked'
import { loadsOverview } from '@/core/assess/loads-overview'
import { reachedPanels } from '@/core/job/panels'
import { demandOn } from '@/core/loads/panel-demand'
import { assumedPeakFactor, explained, type Utility } from '@/core/loads/utility'
import type { MeterAbout, UtilityViews } from '@/core/loads/utility-year'
import { fail, fault, ok } from '@/core/outcome'
import { figure, quantity } from '@/core/units/format'
import { DataTable } from '../common/DataTable'
import { Problem } from '../common/Problem'
import { Card, Columns, Quiet, Row } from '../common/pieces'
import { today } from '../common/today'
import { Choice } from '../form/Choice'
import { Form, Save } from '../form/Form'
import { ChoiceField, NumberField } from '../form/inputs'
import { useSheet } from '../form/useSheet'
import { told } from '../query'
import { useWorkspace } from '../workspace/store'
import { HeatMap } from './HeatMap'
import { DurationChart, MonthsChart, WeekChart } from './UtilityCharts'

interface Props {
  seriesId: string
  name: string
  meters: MeterAbout[]
  warnings: string[]
}

const flowNames = { forward: 'drawn from the grid', reverse: 'fed back', net: 'net' } as const

/** One meter's year: its figures, its pictures, and what the panel can take by it. */
export function MeterYear({ seriesId, name, meters, warnings }: Props) {
  const id = useWorkspace(s => s.id)
  const job = useWorkspace(s => s.job)
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const showWorking = useWorkspace(s => s.showWorking)
  const usual = Math.max(
    0,
    meters.findIndex(m => m.flow !== 'reverse' && m.summed),
  )
  const [n, setN] = useState(usual)
  const meter = meters[n]
  const summed = meter?.summed
  const reached = reachedPanels(job)
  const service =
    job.panels.find(p => p.supply === 'service') ?? job.panels.find(p => reached.has(p.id)) ?? job.panels[0]
  const sheet = useSheet<{ panelId: string; peakFactor: number | string }, number>({
    values: {
      panelId: service?.id ?? '',
      peakFactor:
        job.panels.find(p => p.demandW?.document === name)?.demandW?.peakFactor ??
        (summed ? assumedPeakFactor[summed.minutes] : 1),
    },
    read: ({ peakFactor: typed }) =>
      typeof typed === 'number' && typed >= 1 && typed <= 3
        ? ok(typed)
        : fail(fault('peakFactor', 'must be from 1 to 3')),
    save: factor => take(factor),
  })
  const { panelId, peakFactor } = useWatch({ control: sheet.form.control }) as {
    panelId: string
    peakFactor: number | string
  }
  const query = new URLSearchParams({ series: seriesId, meter: meter?.id ?? '', flow: meter?.flow ?? '' })
  const at = `/api/jobs/${id}/interval-data?${query}`
  const { data, error } = useQuery({
    queryKey: [at],
    queryFn: () => told<{ views: UtilityViews }>(at),
    enabled: meter !== undefined,
    // what was read once does not change
    staleTime: Number.POSITIVE_INFINITY,
  })
  const views = data?.views
  if (!meter) return null
  const panel = job.panels.find(p => p.id === panelId)
  const judged =
    summed && typeof peakFactor === 'number' && panel?.mainA !== undefined
      ? demandOn({ value: summed.demand.peakW, peakFactor, from: 'utility data' }, panel.mainA)
      : null
  const reverseWh = meters.find(m => m.flow === 'reverse')?.totalWh
  const utility: Utility | null = summed
    ? {
        seriesId,
        meterId: meter.id,
        document: name,
        on: today(),
        minutes: summed.minutes,
        firstDay: summed.firstDay,
        lastDay: summed.lastDay,
        demand: summed.demand,
        seasons: summed.seasons,
        ...(reverseWh && { reverseWh }),
      }
    : null
  const said = utility && explained(utility, loadsOverview(job).dailyWh, conditionsOf(job).season)
  const inUse = job.utility?.seriesId === seriesId && job.utility.meterId === meter.id
  const take = (factor: number) => {
    if (!utility) return 'Nothing can be taken from it.'
    const [refused] = act({ op: 'takeUtility', utility, peakFactor: factor, ...(panelId && { panelId }) })
    say(
      refused
        ? `Not taken: ${refused.path} ${refused.message}`
        : `${name} counts now: highest demand ${quantity(utility.demand.peakW, 'W')} on ${panel?.name ?? 'the panel'}. Undo takes it back.`,
    )
    return null
  }
  return (
    <>
      <Card
        aria-label="What it says"
        title={name}
        tools={
          meters.length > 1 && (
            <Choice
              label="Meter"
              value={n}
              options={meters.map((m, value) => ({
                value,
                label: `${m.id}, ${flowNames[m.flow]}, ${quantity(m.totalWh, 'Wh')} in all`,
              }))}
              onChange={setN}
            />
          )
        }
      >
        {warnings.map(w => (
          <Quiet key={w}>{w}</Quiet>
        ))}
        {summed ? (
          <>
            <DataTable
              label="What it says"
              rows={
                [
                  [
                    'From',
                    `${summed.firstDay} to ${summed.lastDay}, ${figure(summed.demand.days)} days by ${summed.minutes} minutes${summed.demand.gaps ? `, ${figure(summed.demand.gaps)} intervals missing` : ''}`,
                  ],
                  [
                    'A mean day',
                    `${quantity(summed.demand.dailyMeanWh, 'Wh')}${Object.entries(summed.seasons)
                      .map(([s, Wh]) => `; ${s} ${quantity(Wh ?? 0, 'Wh')}`)
                      .join('')}`,
                  ],
                  ['Largest day', `${quantity(summed.demand.peakDayWh, 'Wh')} on ${summed.demand.peakDay}`],
                  ['Highest demand', quantity(summed.demand.peakW, 'W')],
                  [
                    'Always on',
                    `${quantity(summed.demand.baseW, 'W')}, ${quantity(24 * summed.demand.baseW, 'Wh')} a day`,
                  ],
                  ...(reverseWh ? [['Fed back in all', quantity(reverseWh, 'Wh')]] : []),
                ] as [string, string][]
              }
              columns={[
                { head: '', names: true, cell: ([label]) => label },
                { head: '', cell: ([, text]) => text },
              ]}
            />
            {said && said.pickedWh > 0 && <Alert>{said.sentence}</Alert>}
            <Form sheet={sheet}>
              <h2>What the panel can take</h2>
              <Columns>
                <ChoiceField
                  name="panelId"
                  label="Panel"
                  options={job.panels.map(p => ({ value: p.id, label: p.name }))}
                />
                <NumberField
                  name="peakFactor"
                  label="Allowance"
                  sign="×"
                  help={
                    summed.minutes === 15
                      ? 'quarter-hours need none'
                      : `${summed.minutes} minutes hide a higher peak`
                  }
                />
              </Columns>
              {judged && (
                <p>
                  {judged.answer}{' '}
                  <Button size="small" aria-haspopup="dialog" onClick={() => showWorking(judged.working)}>
                    Show the working
                  </Button>
                </p>
              )}
              {panel && panel.mainA === undefined && (
                <p>{panel.name} has main lugs only: enter the breaker that feeds it.</p>
              )}
              <Row>
                <Save>{inUse ? 'Use it again with these' : 'Use it for this job'}</Save>
                {inUse && (
                  <Button
                    onClick={() => {
                      act({ op: 'dropUtility' })
                      say('The utility data no longer count. Undo brings them back.')
                    }}
                  >
                    No longer use it
                  </Button>
                )}
              </Row>
            </Form>
          </>
        ) : (
          <p>Its intervals are of no usual length: they cannot be used for the demand.</p>
        )}
      </Card>
      <Problem>{error?.message}</Problem>
      {views && (
        <>
          <Columns least={380}>
            <DurationChart duration={views.duration} baseW={summed?.demand.baseW ?? 0} />
            <WeekChart week={views.peakWeek} />
          </Columns>
          <HeatMap days={views.days} />
          <MonthsChart months={views.months} />
        </>
      )}
    </>
  )
}
