import { Alert, Button, MenuItem, TextField } from '@mui/material'
import { FlaskConical } from 'lucide-react'
import { memo, useState } from 'react'
import { faultsLeft } from '@/core/job/test-log'
import { Card, Column, Columns, Quiet } from '../common/pieces'
import { useWorkspace } from '../workspace/store'
import type { Tests } from './useTests'

const mostSeed = 1_000_000
const random = () => Math.floor(Math.random() * mostSeed)

/** A made-up house behind simulated instruments: sound, or with something wrong in it that the tests must find. */
export const StandIn = memo(function StandIn({ list }: Pick<Tests, 'list'>) {
  const house = useWorkspace(s => s.job.tests?.simulated)
  const left = useWorkspace(s => (s.job.tests ? faultsLeft(s.job.tests).length : 0))
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const causes = [...new Map(list.tests.flatMap(t => t.causes.map(c => [c.id, c.text] as const))).entries()]
  const [chosen, setChosen] = useState('')
  const put = (faults: string[]) => {
    const [refused] = act({ op: 'standInHouse', house: { seed: random(), faults } })
    say(
      refused
        ? refused.message
        : 'A made-up house answers the instruments now. Nothing that it shows proves anything in a real one.',
    )
  }
  if (house) {
    return (
      <Card title="Simulated instruments">
        <Alert severity="warning" icon={<FlaskConical size={20} aria-hidden />}>
          A made-up house answers.{' '}
          {house.faults.length === 0
            ? 'It is sound.'
            : left
              ? 'Something in it is wrong.'
              : 'What was wrong in it is mended.'}{' '}
          What is read from it is marked, and proves nothing in a house.
        </Alert>
        <Columns least={180}>
          <Button onClick={() => put([])}>Another, sound</Button>
          <Button disabled={!causes.length} onClick={() => put(oneOf(causes))}>
            Another, with a fault
          </Button>
          <Button color="inherit" onClick={() => act({ op: 'standInHouse', house: null })}>
            Take it away
          </Button>
        </Columns>
      </Card>
    )
  }
  return (
    <Card title="Simulated instruments">
      <Quiet>
        Shown, tested or taught without a house: multimeter, clamp, plug-in meter, display and sensors answer
        from a made-up one.
      </Quiet>
      <Columns least={180}>
        <Button variant="outlined" onClick={() => put([])}>
          A sound house
        </Button>
        <Button variant="outlined" disabled={!causes.length} onClick={() => put(oneOf(causes))}>
          A fault to find
        </Button>
      </Columns>
      {causes.length > 0 && (
        <Column>
          <TextField
            select
            label="Or this fault"
            value={chosen}
            onChange={e => setChosen(e.target.value)}
            slotProps={{ inputLabel: { shrink: true } }}
          >
            {causes.map(([id, text]) => (
              <MenuItem key={id} value={id} sx={{ whiteSpace: 'normal' }}>
                {text}
              </MenuItem>
            ))}
          </TextField>
          {chosen && <Button onClick={() => put([chosen])}>Put it in</Button>}
        </Column>
      )}
    </Card>
  )
})

const oneOf = (causes: readonly (readonly [id: string, text: string])[]): string[] => {
  const [id] = causes[random() % causes.length] ?? []
  return id === undefined ? [] : [id]
}
