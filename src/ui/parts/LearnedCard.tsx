import { Alert, Button } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { type Learned, leastTasks } from '@/core/order/learned'
import { figure, minutesText, plural, quantity } from '@/core/units/format'
import type { Minutes } from '@/core/work/parts/tasks'
import { DataTable } from '../common/DataTable'
import { Card, Quiet } from '../common/pieces'
import { told } from '../query'
import { type FirmParts, useFirmPartsChanges } from './useFirmParts'

/** What the field’s clocks counted over all jobs, beside what was estimated; taken over into the firm’s minutes by a press. */
export function LearnedCard({ firm }: { firm: FirmParts }) {
  const { data } = useQuery({
    queryKey: ['minutes', firm.version],
    queryFn: () => told<{ learned: Learned[] }>('/api/minutes'),
  })
  const change = useFirmPartsChanges()
  const learned = data?.learned ?? []
  const enough = learned.filter(l => l.tasks >= leastTasks)
  if (!learned.length) return null
  const take = () => {
    const rows = new Map(enough.map(l => [l.work, l.row]))
    const minutes: Minutes = [...firm.minutes.filter(m => !rows.has(m.work)), ...rows.values()]
    change.mutate({ act: 'minutes', minutes, version: firm.version })
  }
  return (
    <Card
      title="Hours learned"
      tools={
        <Button
          className="no-print"
          size="small"
          disabled={!enough.length || change.isPending}
          onClick={take}
        >
          Take over as the firm’s minutes
        </Button>
      }
    >
      <DataTable
        label="Hours learned"
        rows={learned}
        idOf={l => l.work}
        stacked="labelled"
        columns={[
          { head: 'Work', names: true, cell: l => l.name },
          { head: 'Counted', cell: l => `${plural(l.tasks, 'task')} of ${plural(l.jobs, 'job')}` },
          { head: 'Estimated', figure: true, cell: l => minutesText(l.estimatedMin) },
          { head: 'Took', figure: true, cell: l => minutesText(l.countedMin) },
          {
            head: 'Middle, and half of them between',
            figure: true,
            cell: l =>
              `${quantity(l.middle, 'fraction')} (${quantity(l.from, 'fraction')} to ${quantity(l.to, 'fraction')})`,
          },
          {
            head: 'The first, each more, by that',
            figure: true,
            cell: l =>
              l.tasks >= leastTasks
                ? `${figure(l.row.firstMin)} min, ${figure(l.row.eachMin)} min`
                : `too few: from ${leastTasks} on`,
          },
        ]}
      />
      {change.error && <Alert severity="error">{change.error.message}</Alert>}
      <Quiet>
        Of what was estimated when it was done. The middle task counts, so that one lost afternoon moves
        nothing.
      </Quiet>
    </Card>
  )
}
