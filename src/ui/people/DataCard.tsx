import { Button, List, ListItem, ListItemText } from '@mui/material'
import { Download } from 'lucide-react'
import { useState } from 'react'
import { call } from '../api'
import { Popup } from '../common/Popup'
import { Problem } from '../common/Problem'
import { Card, Quiet, Row } from '../common/pieces'
import { leaveFor } from '../common/sign-out'
import { LineField } from '../form/inputs'
import { PlainForm, sent } from './entry'

export interface DeletedJob {
  id: string
  title: string
  deletedAt: string
}

/** All of the firm taken out, jobs that were deleted, and the end of the firm. */
export function DataCard({
  firm,
  deleted,
  graceDays,
}: {
  firm: string
  deleted: DeletedJob[]
  graceDays: number
}) {
  const [jobs, setJobs] = useState(deleted)
  const [ending, setEnding] = useState(false)
  const [problem, setProblem] = useState<string | null>(null)
  const back = async (id: string) => {
    const reply = await call<{ jobs: DeletedJob[] }>(`/api/jobs/${id}/delete`, 'POST', { deleted: false })
    if (reply.ok) setJobs(reply.data.jobs)
    else setProblem(reply.message)
  }
  return (
    <Card title="Data">
      <Quiet>
        Everything of the firm as one archive of open files: jobs, photographs, papers, catalogue, prices,
        people and the record. Another Spillway takes it in as it is.
      </Quiet>
      <Row>
        <Button
          variant="outlined"
          component="a"
          href="/api/firm/archive"
          startIcon={<Download size={16} aria-hidden />}
        >
          Take all of it out
        </Button>
      </Row>
      {jobs.length > 0 && (
        <>
          <h3>Deleted jobs</h3>
          <List aria-label="Deleted jobs" disablePadding>
            {jobs.map(j => (
              <ListItem
                key={j.id}
                divider
                disableGutters
                secondaryAction={
                  <Button size="small" aria-label={`Bring ${j.title} back`} onClick={() => back(j.id)}>
                    Bring back
                  </Button>
                }
              >
                <ListItemText
                  sx={{ pr: 10, overflowWrap: 'anywhere' }}
                  primary={j.title}
                  secondary={`deleted ${j.deletedAt.slice(0, 10)}, gone ${graceDays} days later`}
                />
              </ListItem>
            ))}
          </List>
        </>
      )}
      <Problem>{problem}</Problem>
      <Row>
        <Button color="error" onClick={() => setEnding(true)}>
          Delete the firm
        </Button>
      </Row>
      {ending && (
        <Popup title={`Delete ${firm}`} onClose={() => setEnding(false)}>
          <p>
            Nobody works in it from now on, and no link leads into it. For {graceDays} days an owner brings it
            back from “Your firms”; then all of it is gone for good. Take the archive out first.
          </p>
          <PlainForm
            label="Delete the firm"
            values={{ name: '' }}
            save="Delete it"
            onSend={values => sent('/api/firm/delete', values, () => leaveFor('/firms'))}
          >
            <LineField name="name" label="Name of the firm, to be sure" most={80} autoFocus />
          </PlainForm>
        </Popup>
      )}
    </Card>
  )
}
