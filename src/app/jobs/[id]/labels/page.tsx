import type { Metadata } from 'next'
import * as z from 'zod'
import { planTold } from '@/core/assess/plan-told'
import { houseOf, houses } from '@/core/job/as-planned'
import { marksOf } from '@/core/plan/marks'
import { labelSheets, labelTapes } from '@/core/work/labels'
import { houseNames } from '@/ui/common/HouseToggle'
import { LabelPages } from '@/ui/labels/LabelPages'
import { LabelsBar } from '@/ui/labels/LabelsBar'
import { PanelDirectory } from '@/ui/labels/PanelDirectory'
import { type JobPageParams, loadJob } from '../load'

export async function generateMetadata({ params }: JobPageParams): Promise<Metadata> {
  const { record } = await loadJob((await params).id)
  return { title: `${record.job.title}, directory and labels` }
}

const asked = z.object({
  panel: z.string().optional().catch(undefined),
  house: z.enum(houses).catch('planned').default('planned'),
  size: z
    .enum(['directory', ...labelSheets.map(s => s.key), ...labelTapes.map(t => t.key)])
    .catch('directory')
    .default('directory'),
  skip: z.coerce.number().int().min(0).max(79).catch(0).default(0),
})

interface Params extends JobPageParams {
  searchParams: Promise<Record<string, string | string[] | undefined>>
}

/** The panel directory, and labels for its breakers, on paper. */
export default async function LabelsPage({ params, searchParams }: Params) {
  const { record, actor, today } = await loadJob((await params).id)
  const { panel: panelId, house, size, skip } = asked.parse(await searchParams)
  const job = houseOf(record.job, house)
  const signs = marksOf(planTold(record.job).filter(c => c.kind !== 'lead' && c.hindered === null))
  const panel = job.panels.find(p => p.id === panelId) ?? job.panels[0]
  if (!panel) return null
  return (
    <>
      <LabelsBar
        jobId={record.id}
        panels={job.panels.map(p => ({ id: p.id, name: p.name }))}
        panelId={panel.id}
        house={house}
        size={size}
        skip={skip}
      />
      {size === 'directory' ? (
        <PanelDirectory
          job={job}
          panel={panel}
          house={houseNames[house]}
          marks={new Map([...signs].map(([id, { sign }]) => [id, sign]))}
          firm={actor.firm}
          revision={record.revision}
          printedOn={today}
        />
      ) : (
        <LabelPages job={job} panel={panel} size={size} skip={skip} />
      )}
    </>
  )
}
