'use client'
import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import { steps } from '@/core/job/schema'
import { line } from '@/core/quantity'
import { Choice } from '../common/Choice'
import { EditField, readText } from '../common/EditField'
import dialog from '../panel/LoadDialog.module.css'
import { useWorkspace } from './store'

const panelSizes = [8, 12, 16, 20, 24, 30, 32, 36, 40, 42]
const mains = [30, 60, 100, 125, 150, 175, 200, 225, 400]
const having = (values: number[], value: number) => [...new Set([...values, value])].sort((a, b) => a - b)

/** The facts of the job as a whole; each saves when left. */
export function JobFactsDialog({ onClose }: { onClose: () => void }) {
  const job = useWorkspace(s => s.job)
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const tell = (faults: ReturnType<typeof act>) =>
    faults[0] && say(`Not changed: ${faults[0].path} ${faults[0].message}`)
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs" aria-labelledby="facts-title">
      <DialogTitle id="facts-title">This job</DialogTitle>
      <DialogContent className={dialog.fields}>
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
          options={steps.map(value => ({ value, label: value }))}
          onChange={step => tell(act({ op: 'setJobFacts', facts: { step } }))}
        />
        <Choice
          label="National Electrical Code"
          value={job.edition}
          options={([2017, 2020, 2023] as const).map(value => ({ value, label: `${value} edition` }))}
          onChange={edition => tell(act({ op: 'setJobFacts', facts: { edition } }))}
        />
        <EditField
          label="Panel"
          value={job.panel.name}
          read={readText(line(60, 1))}
          onCommit={name => act({ op: 'setPanel', facts: { name } })}
        />
        <div className={dialog.pair}>
          <Choice
            label="Spaces"
            value={job.panel.spaces}
            options={having(panelSizes, job.panel.spaces).map(value => ({ value, label: `${value}` }))}
            onChange={spaces => tell(act({ op: 'setPanel', facts: { spaces } }))}
          />
          <Choice
            label="Main"
            value={job.panel.mainA}
            options={having(mains, job.panel.mainA).map(value => ({ value, label: `${value} A` }))}
            onChange={mainA => tell(act({ op: 'setPanel', facts: { mainA } }))}
          />
        </div>
        <Choice
          label="Fed"
          value={job.panel.supply}
          options={[
            { value: 'service', label: 'by the service' },
            { value: 'fed from another panel', label: 'from another panel' },
          ]}
          onChange={supply => tell(act({ op: 'setPanel', facts: { supply } }))}
        />
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Done</Button>
      </DialogActions>
    </Dialog>
  )
}
