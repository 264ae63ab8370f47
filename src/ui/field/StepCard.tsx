import { Alert, Box, Button, Chip, Typography } from '@mui/material'
import { Camera, Check, Play, Undo2, Users } from 'lucide-react'
import dynamic from 'next/dynamic'
import { useState } from 'react'
import { inEdition } from '@/core/articles'
import { asBuilt, asPlanned } from '@/core/job/as-planned'
import { hinders } from '@/core/order/stand'
import { type Opened, phases, type Task } from '@/core/order/task'
import { fail, fault, ok } from '@/core/outcome'
import { minutesText, together } from '@/core/units/format'
import { FileButton, pictures } from '../common/FileButton'
import { Fold } from '../common/Fold'
import { Column, Columns, Quiet, Row, Terms } from '../common/pieces'
import { Thumbnails } from '../common/Thumbnails'
import { Form, OtherFaults } from '../form/Form'
import { LineField } from '../form/inputs'
import { useSheet } from '../form/useSheet'
import { text } from '../theme/tokens'
import { useWorkspace } from '../workspace/store'
import { HoldPoint } from './HoldPoint'
import { takePhoto } from './photographs'
import { StepDrawing } from './StepDrawing'
import type { Step } from './useStep'
import { useRecord, type Work } from './useWork'

const WaterPicture = dynamic(() => import('./WaterPicture').then(m => m.WaterPicture))
const Otherwise = dynamic(() => import('./Otherwise').then(m => m.Otherwise))

interface Props {
  task: Task
  work: Work
  /** step 7 of 23 */
  number: number
  step: Step
  onPhoto: () => Promise<void>
  /** its Done stands in a bar of the screen */
  barred?: boolean
}

/** One step: what to do, what stays live beside the hands, its drawing, its hold points, and that it is done. */
export function StepCard({ task, work, number, step, onPhoto, barred = false }: Props) {
  const { order, stand } = work
  const id = useWorkspace(s => s.id)
  const job = useWorkspace(s => s.job)
  const say = useWorkspace(s => s.say)
  const [otherwise, setOtherwise] = useState(false)
  const now = stand.tasks.get(task.id)
  const isolating = task.phase === 'isolate' || task.phase === 'prove' || task.phase === 'energise'
  // what is met there is drawn as it stands; what is made, as it is planned
  const stands = task.phase === 'arrive' || isolating ? asBuilt(job).panels : asPlanned(job).job.panels
  const panel = [...stands, ...asPlanned(job).job.panels].find(p => p.id === task.panelId)
  const window = order.windows.find(w => w.id === task.window)
  const { done, mine, why } = step
  if (!now) return null
  return (
    <Column
      component="article"
      aria-label={`Step ${number}: ${task.text}`}
      sx={{ '& .MuiButton-root': { minHeight: 48 } }}
    >
      <Box>
        <Row>
          <Quiet sx={{ flex: 1 }}>
            Step {number} of {order.tasks.length} · {phases[task.phase].name} · about{' '}
            {minutesText(task.minutes)}
            {task.people > 1 && ' · two people'}
          </Quiet>
          {done && (
            <Chip
              size="small"
              color="primary"
              icon={<Check size={16} aria-hidden />}
              label={`Done, ${now.doneBy ?? ''}`}
            />
          )}
          {!done && now.at.length > 0 && (
            <Chip size="small" icon={<Users size={16} aria-hidden />} label={together(now.at)} />
          )}
        </Row>
        <Typography
          component="h2"
          sx={{ fontSize: text.title, fontWeight: 800, lineHeight: 1.2, overflowWrap: 'anywhere' }}
        >
          {task.text}
        </Typography>
      </Box>
      {task.staysLive.length > 0 && (
        <Alert severity="error" icon={false}>
          <b>STAYS LIVE: {together(task.staysLive.map(p => p.name))}.</b> Covered, and kept away from.
        </Alert>
      )}
      {task.window === null && task.keptOpen.length > 0 && (
        <Alert severity="warning" icon={false}>
          Nobody closes this meanwhile: {together(task.keptOpen.map(o => `${o.name}, ${o.setting}`))}.
        </Alert>
      )}
      {now.state === 'waiting' && (
        <Alert severity="warning" icon={false}>
          <b>Not yet.</b> {hinders(stand, task, order.tasks)}
        </Alert>
      )}
      {now.troubles.map(t => (
        <Alert key={t} severity="error">
          {t}
        </Alert>
      ))}
      {now.alsoBy.length > 0 && (
        <Alert severity="info">{together(now.alsoBy)} wrote down that it is done, too.</Alert>
      )}
      {now.otherwise && <Alert severity="info">Done otherwise: {now.otherwise}</Alert>}
      <StepDrawing task={task} panel={panel} />
      <Box component="ul" sx={{ pl: 2.5, m: 0, fontSize: text.lead, '& > li + li': { mt: 0.75 } }}>
        {task.lines.map(line => (
          <li key={line}>{inEdition(line, job.edition)}</li>
        ))}
      </Box>
      {isolating && window && <WaterPicture window={window} windows={order.windows} stand={stand} />}
      {now.holds.map(h => (
        <HoldPoint key={h.hold.id} task={task} stand={h} work={work} onPhoto={onPhoto} />
      ))}
      {why && (
        <Alert severity="warning" role="alert" onClose={() => step.say(null)}>
          {why}
        </Alert>
      )}
      <Columns least={140}>
        {!done && !mine && (
          <Button variant="outlined" startIcon={<Play size={20} aria-hidden />} onClick={step.begin}>
            Begin
          </Button>
        )}
        {!done && mine && (
          <Button variant="outlined" onClick={step.putDown}>
            Put down
          </Button>
        )}
        {!done && !barred && (
          <Button variant="contained" startIcon={<Check size={20} aria-hidden />} onClick={step.tick}>
            Done
          </Button>
        )}
        {done && (
          <Button variant="outlined" startIcon={<Undo2 size={20} aria-hidden />} onClick={step.back}>
            Take back
          </Button>
        )}
        <FileButton
          what={`Photograph of: ${task.text}`}
          accept={pictures}
          camera
          variant="outlined"
          startIcon={<Camera size={20} aria-hidden />}
          onFiles={async ([file]) => {
            const taken = await takePhoto(id, task, file)
            if ('refused' in taken) return say(taken.refused)
            await onPhoto()
          }}
        >
          Photograph
        </FileButton>
        {!done && task.changes.length > 0 && (
          <Button
            variant="outlined"
            onClick={() => {
              const against = hinders(stand, task, order.tasks)
              if (against) step.say(against)
              else setOtherwise(true)
            }}
          >
            Done otherwise
          </Button>
        )}
      </Columns>
      <Notes task={task} work={work} />
      <Fold title="What it takes">
        {() => (
          <Column>
            {task.parts.length > 0 && <p>Parts: {together(task.parts)}.</p>}
            <p>Tools: {together(task.tools)}.</p>
            {task.places.length > 0 && <p>Hands meet: {together(task.places.map(p => p.name))}.</p>}
            {window && (
              <Terms
                width={150}
                rows={[...window.opened.map(openedRow), ...window.keptOpen.map(openedRow)]}
              />
            )}
          </Column>
        )}
      </Fold>
      {otherwise && (
        <Otherwise
          task={task}
          onClose={() => {
            setOtherwise(false)
            if (done) step.next()
          }}
          onDone={step.finish}
        />
      )}
    </Column>
  )
}

/** A handle that is open for a step: how it is kept there, and from what it keeps hands. */
const openedRow = (o: Opened): [string, string] => [
  `${o.name}: ${o.setting}`,
  `${o.lock}; keeps away ${together(o.keepsAway)}`,
]

function Notes({ task, work: { stand } }: { task: Task; work: Work }) {
  const job = useWorkspace(s => s.job)
  const record = useRecord()
  const now = stand.tasks.get(task.id)
  const photos = job.photos.filter(p => now?.photoIds.includes(p.id))
  const waiting = (now?.photoIds.length ?? 0) - photos.length
  const sheet = useSheet<{ text: string }, string>({
    values: { text: '' },
    keep: `spillway.note.${task.id}`,
    read: ({ text }) => (text.trim() ? ok(text.trim()) : fail(fault('text', 'must say something'))),
    save: text => record(task, { kind: 'note', text }),
    done: () => sheet.form.reset({ text: '' }),
  })
  return (
    <>
      <Thumbnails photos={photos} />
      {waiting > 0 && <Quiet>{waiting} of its photographs wait to be sent.</Quiet>}
      {now?.notes.map(n => (
        <Quiet key={`${n.by} ${n.text}`}>
          <b>{n.by}:</b> {n.text}
        </Quiet>
      ))}
      <Fold title="Note">
        {() => (
          <Form sheet={sheet}>
            <LineField name="text" label="What the next one should know" lines={2} most={2000} />
            <OtherFaults />
            <Button type="submit" variant="outlined">
              Keep the note
            </Button>
          </Form>
        )}
      </Fold>
    </>
  )
}
