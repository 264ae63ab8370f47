import { Alert, Button, Link as MuiLink } from '@mui/material'
import { Camera } from 'lucide-react'
import Link from 'next/link'
import { useState } from 'react'
import { fail, fault, ok } from '@/core/outcome'
import { FileButton, pictures } from '../common/FileButton'
import { Card, Columns, Quiet, Row } from '../common/pieces'
import { Thumbnails } from '../common/Thumbnails'
import { takePhoto } from '../field/photographs'
import { DayInput } from '../form/DayInput'
import { Form, OtherFaults } from '../form/Form'
import { LineField } from '../form/inputs'
import { useField } from '../form/useField'
import { useSheet } from '../form/useSheet'
import { useWorkspace } from '../workspace/store'
import { type Tests, theInspection, useRecordTest } from './useTests'

/** The authority: when it comes, what it remarks, what became of that, and what it decided. */
export function Inspection({ stand, onPhoto }: Pick<Tests, 'stand'> & { onPhoto: () => Promise<void> }) {
  const id = useWorkspace(s => s.id)
  const record = useRecordTest()
  const { appointment, remarks, result, passed } = stand.inspection
  const meet = useSheet<{ day: string; text: string }, { day: string; text: string }>({
    values: { day: '', text: '' },
    read: v => (/^\d{4}-\d{2}-\d{2}$/.test(v.day) ? ok(v) : fail(fault('day', 'must be a day'))),
    save: ({ day, text }) =>
      record(theInspection, { kind: 'appointment', day, ...(text.trim() && { text: text.trim() }) }),
    done: () => meet.form.reset({ day: '', text: '' }),
  })
  const say = useWorkspace(s => s.say)
  const photos = useWorkspace(s => s.job.photos).filter(
    p => p.about.kind === 'task' && p.about.task === theInspection.id,
  )
  const [photoId, setPhotoId] = useState<string | null>(null)
  const photograph = async (file: File) => {
    const taken = await takePhoto(id, theInspection, file)
    if ('refused' in taken) return say(taken.refused)
    setPhotoId(taken.id)
    await onPhoto()
  }
  const remark = useSheet<{ text: string }, string>({
    values: { text: '' },
    read: ({ text }) => (text.trim() ? ok(text.trim()) : fail(fault('text', 'must say what was remarked'))),
    save: text => record(theInspection, { kind: 'remark', text, ...(photoId !== null && { photoId }) }),
    done: () => {
      remark.form.reset({ text: '' })
      setPhotoId(null)
    },
  })
  const decided = (what: 'passed' | 'to be corrected') =>
    record(theInspection, { kind: 'inspected', result: what })
  return (
    <Card title="Inspection by the authority">
      {passed && result && (
        <Alert severity="success">
          Passed on {result.on}, written down by {result.by}.
        </Alert>
      )}
      {!passed && result && (
        <Alert severity="warning">
          {result.result === 'passed'
            ? 'Said to have passed, while a remark stands open.'
            : 'To be corrected'}
          , {result.on}, {result.by}.
        </Alert>
      )}
      {appointment && !passed && (
        <p>
          Appointment: <b>{appointment.day}</b>
          {appointment.text && `, ${appointment.text}`}
        </p>
      )}
      {remarks.map(r => (
        <Alert key={r.id} severity={r.corrected ? 'success' : 'warning'}>
          {r.text}{' '}
          {r.corrected ? (
            'Corrected.'
          ) : (
            <MuiLink component={Link} href={`/jobs/${id}/work#remark:${r.id}`}>
              A task of the work order
            </MuiLink>
          )}
        </Alert>
      ))}
      <Columns least={260}>
        <Form sheet={meet} label="Appointment">
          <Day />
          <LineField name="text" label="Who comes, when" />
          <OtherFaults />
          <Button type="submit" variant="outlined">
            Write down the appointment
          </Button>
        </Form>
        <Form sheet={remark} label="Remark">
          <LineField name="text" label="A remark, as it was said" lines={2} most={300} />
          <FileButton
            what="Photograph of the remark"
            accept={pictures}
            camera
            startIcon={<Camera size={18} aria-hidden />}
            onFiles={([file]) => (file ? photograph(file) : undefined)}
          >
            {photoId === null ? 'Photograph' : 'Photograph taken; another'}
          </FileButton>
          <OtherFaults />
          <Button type="submit" variant="outlined">
            Write down the remark
          </Button>
          <Quiet>It becomes a task of the work order; done there, it is corrected here.</Quiet>
        </Form>
      </Columns>
      <Thumbnails photos={photos} />
      <Row>
        <Button variant="contained" onClick={() => decided('passed')}>
          It passed
        </Button>
        <Button onClick={() => decided('to be corrected')}>To be corrected</Button>
      </Row>
    </Card>
  )
}

function Day() {
  const { value, set } = useField('day', 'Day')
  return <DayInput label="Day" value={typeof value === 'string' ? value : ''} onChange={set} />
}
