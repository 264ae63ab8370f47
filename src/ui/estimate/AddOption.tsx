import { useQuery } from '@tanstack/react-query'
import type { JobListRow } from '@/core/assess/record'
import type { DraftOption } from '@/core/estimate/draft'
import { outOf100 } from '@/core/outage/words'
import { quantity } from '@/core/units/format'
import { PickList } from '../common/PickList'
import { Popup } from '../common/Popup'
import { useKeptFirm } from '../first/useFirstAnswer'
import { useFirstDesigns } from '../first/useFirstDesigns'
import { told } from '../query'
import { useWorkspace } from '../workspace/store'

interface Props {
  kind: 'found' | 'copy'
  onAdd: (option: DraftOption) => void
  onClose: () => void
}

/** Another design for the estimate: one that the first answer finds, or a copy of the job that was designed otherwise. */
export const AddOption = ({ kind, onAdd, onClose }: Props) => (
  <Popup title={kind === 'found' ? 'Designs of the first answer' : 'Copies and other jobs'} onClose={onClose}>
    {kind === 'found' ? <FoundHere onAdd={onAdd} /> : <Copies onAdd={onAdd} />}
  </Popup>
)

function FoundHere({ onAdd }: Pick<Props, 'onAdd'>) {
  const { firm, trouble } = useKeptFirm()
  const { found, busy, trouble: failed } = useFirstDesigns(firm)
  const hours = useWorkspace(s => s.job.outage.hours)
  if (trouble ?? failed) return <p role="alert">{trouble ?? failed}</p>
  if (busy || !found) return <p role="status">Looking for designs…</p>
  if (!found.designs.length) return <p>{found.sentence}</p>
  return (
    <PickList
      label="Designs"
      items={found.designs}
      idOf={d => d.name}
      first={d => <b>{d.name}</b>}
      second={d =>
        `${quantity(d.price.low, '$')} to ${quantity(d.price.high, '$')} before mark-up, lasts ${quantity(hours, 'h')} in ${outOf100(d.chance)} of 100; ${d.why}`
      }
      onPick={d =>
        onAdd({ id: crypto.randomUUID(), name: d.name.slice(0, 120), from: { kind: 'found', take: d.take } })
      }
    />
  )
}

function Copies({ onAdd }: Pick<Props, 'onAdd'>) {
  const title = useWorkspace(s => s.job.title)
  const id = useWorkspace(s => s.id)
  const name = title.replace(/ \(copy\)$/, '')
  const { data, error } = useQuery({
    queryKey: ['copies', name],
    queryFn: () => told<{ rows: JobListRow[] }>(`/api/jobs?q=${encodeURIComponent(name.slice(0, 100))}`),
  })
  if (error) return <p role="alert">{error.message}</p>
  if (!data) return <p role="status">Looking for copies…</p>
  const rows = data.rows.filter(r => r.id !== id)
  if (!rows.length)
    return (
      <p>
        There is no copy of this job yet. Make one in the list of jobs, design it otherwise, and come back.
      </p>
    )
  return (
    <PickList
      label="Copies"
      items={rows}
      idOf={r => r.id}
      first={r => <b>{r.title}</b>}
      second={r => r.place}
      onPick={r =>
        onAdd({ id: crypto.randomUUID(), name: r.title.slice(0, 120), from: { kind: 'job', jobId: r.id } })
      }
    />
  )
}
