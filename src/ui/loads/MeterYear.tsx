'use client'
import Button from '@mui/material/Button'
import { useEffect, useState } from 'react'
import { loadsOverview } from '@/core/job/loads-overview'
import { reachedPanels } from '@/core/job/panels'
import { conditionsOf } from '@/core/job/schema'
import { demandOn } from '@/core/loads/panel-demand'
import { assumedPeakFactor, explained, type Utility } from '@/core/loads/utility'
import type { UtilityViews } from '@/core/loads/utility-year'
import { figure, quantity } from '@/core/units/format'
import { call } from '../api'
import { Choice } from '../common/Choice'
import { today } from '../common/today'
import { useWorkspace } from '../workspace/store'
import { FormField, numberTyped } from './fields'
import { HeatMap } from './HeatMap'
import styles from './Loads.module.css'
import { DurationChart, MonthsChart, WeekChart } from './UtilityCharts'
import type { MeterAbout } from './UtilityView'

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
  const [views, setViews] = useState<UtilityViews | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const meter = meters[n]
  const summed = meter?.summed
  const [factor, setFactor] = useState(() =>
    String(
      job.panels.find(p => p.demandW?.document === name)?.demandW?.peakFactor ??
        (summed ? assumedPeakFactor[summed.minutes] : 1),
    ),
  )
  const reached = reachedPanels(job)
  const service =
    job.panels.find(p => p.supply === 'service') ?? job.panels.find(p => reached.has(p.id)) ?? job.panels[0]
  const [panelId, setPanelId] = useState(service?.id ?? '')
  const meterId = meter?.id
  const flow = meter?.flow
  useEffect(() => {
    if (meterId === undefined || flow === undefined) return
    setViews(null)
    const query = new URLSearchParams({ series: seriesId, meter: meterId, flow })
    void call<{ views: UtilityViews }>(`/api/jobs/${id}/interval-data?${query}`, 'GET').then(answer => {
      if (answer.ok) setViews(answer.data.views)
      else setProblem(answer.message)
    })
  }, [id, seriesId, meterId, flow])
  if (!meter) return null
  const panel = job.panels.find(p => p.id === panelId)
  const typed = numberTyped(factor)
  const peakFactor = typeof typed === 'number' && typed >= 1 && typed <= 3 ? typed : null
  const judged =
    summed && peakFactor !== null && panel?.mainA !== undefined
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
  const take = () => {
    if (!utility || peakFactor === null) return
    const [fault] = act({ op: 'takeUtility', utility, peakFactor, ...(panelId && { panelId }) })
    say(
      fault
        ? `Not taken: ${fault.path} ${fault.message}`
        : `${name} counts now: highest demand ${quantity(utility.demand.peakW, 'W')} on ${panel?.name ?? 'the panel'}. Undo takes it back.`,
    )
  }
  return (
    <>
      <section className={styles.card} aria-label="What it says">
        <div className={styles.tools}>
          <h2>{name}</h2>
          {meters.length > 1 && (
            <Choice
              label="Meter"
              value={n}
              options={meters.map((m, value) => ({
                value,
                label: `${m.id}, ${flowNames[m.flow]}, ${quantity(m.totalWh, 'Wh')} in all`,
              }))}
              onChange={setN}
            />
          )}
        </div>
        {warnings.map(w => (
          <p key={w} className={styles.quiet}>
            {w}
          </p>
        ))}
        {summed ? (
          <>
            <table className={styles.table}>
              <tbody>
                {(
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
                ).map(([label, text]) => (
                  <tr key={label}>
                    <th scope="row">{label}</th>
                    <td>{text}</td>
                  </tr>
                ))}
              </tbody>
            </table>
            {said && said.pickedWh > 0 && <p className={styles.told}>{said.sentence}</p>}
            <h2>What the panel can take</h2>
            <div className={styles.fields}>
              <Choice
                label="Panel"
                value={panelId}
                options={job.panels.map(p => ({ value: p.id, label: p.name }))}
                onChange={setPanelId}
              />
              <FormField
                label="Allowance"
                unit="×"
                value={factor}
                help={
                  summed.minutes === 15
                    ? 'quarter-hours need none'
                    : `${summed.minutes} minutes hide a higher peak`
                }
                faults={peakFactor === null ? [{ path: 'peakFactor', message: 'must be from 1 to 3' }] : []}
                path="peakFactor"
                onChange={setFactor}
              />
            </div>
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
            <div className={styles.tools}>
              <Button variant="contained" disabled={peakFactor === null} onClick={take}>
                {inUse ? 'Use it again with these' : 'Use it for this job'}
              </Button>
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
            </div>
          </>
        ) : (
          <p>Its intervals are of no usual length: they cannot be used for the demand.</p>
        )}
      </section>
      {problem && (
        <p role="alert" className={styles.alert}>
          {problem}
        </p>
      )}
      {views && (
        <>
          <div className={styles.columns}>
            <DurationChart duration={views.duration} baseW={summed?.demand.baseW ?? 0} />
            <WeekChart week={views.peakWeek} />
          </div>
          <HeatMap days={views.days} />
          <MonthsChart months={views.months} />
        </>
      )}
    </>
  )
}
