import { editions } from '@/core/editions'
import { steps } from '@/core/job/schema'
import { line } from '@/core/quantity'
import { Popup } from '../common/Popup'
import { Choice } from '../form/Choice'
import { EditField, readText } from '../form/EditField'
import { useWorkspace } from './store'

/** The facts of the job as a whole; each saves when left. */
export function JobFactsDialog({ onClose }: { onClose: () => void }) {
  const job = useWorkspace(s => s.job)
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const tell = (faults: ReturnType<typeof act>) =>
    faults[0] && say(`Not changed: ${faults[0].path} ${faults[0].message}`)
  return (
    <Popup title="This job" close="Done" onClose={onClose} maxWidth="xs">
      <EditField
        label="Name"
        value={job.title}
        read={readText(line(80, 1))}
        onCommit={title => act({ op: 'setJobFacts', facts: { title } })}
      />
      <EditField
        label="Place"
        value={job.place}
        read={readText(line(120))}
        onCommit={place => act({ op: 'setJobFacts', facts: { place } })}
      />
      <Choice
        label="Step it has come to"
        value={job.step}
        options={steps}
        onChange={step => tell(act({ op: 'setJobFacts', facts: { step } }))}
      />
      <Choice
        label="National Electrical Code"
        value={job.edition}
        options={editions.map(value => ({ value, label: `${value} edition` }))}
        onChange={edition => tell(act({ op: 'setJobFacts', facts: { edition } }))}
      />
    </Popup>
  )
}
