import { Button } from '@mui/material'
import { useState } from 'react'
import type { Want } from '@/core/ask/brief'
import { ownLoad } from '@/core/ask/want'
import { fail, fault, ok } from '@/core/outcome'
import { Column, Row } from '../common/pieces'
import { Form, Save } from '../form/Form'
import { ChoiceField, NumberField } from '../form/inputs'
import { useSheet } from '../form/useSheet'

/** Watts and hours of a thing that no library has, or that somebody knows better. */
export function OwnFigures({ want, onSet }: { want: Want; onSet: (want: Want) => unknown }) {
  const [load] = want.loads ?? []
  const [open, setOpen] = useState(false)
  const sheet = useSheet<{ W: number | string; hours: number | string; volts: number }, Want>({
    values: {
      W: load?.load.runningW.value ?? '',
      hours: load ? load.load.dutyFraction.value * 24 : '',
      volts: load?.volts ?? 120,
    },
    read: ({ W, hours, volts }) => {
      if (typeof W !== 'number' || W <= 0 || W > 20_000)
        return fail(fault('W', 'must be the watts while it runs, from 1 to 20,000'))
      if (typeof hours !== 'number' || hours < 0 || hours > 24)
        return fail(fault('hours', 'must be hours of a day, from 0 to 24'))
      return ok(ownLoad(want, W, hours, volts === 240 ? 240 : 120, () => crypto.randomUUID()))
    },
    save: next => {
      onSet(next)
      setOpen(false)
      return null
    },
  })
  if (!open)
    return (
      <Button size="small" onClick={() => setOpen(true)}>
        {load ? 'Its watts, as somebody knows them' : `Say what ${want.name} draws`}
      </Button>
    )
  return (
    <Form sheet={sheet}>
      <Column>
        <Row sx={{ alignItems: 'flex-start' }}>
          <NumberField name="W" label="Watts while it runs" sign="W" />
          <NumberField name="hours" label="Hours a day" sign="h" />
          <ChoiceField
            name="volts"
            label="At"
            options={[
              { value: 120, label: '120 V' },
              { value: 240, label: '240 V' },
            ]}
          />
        </Row>
        <Row>
          <Save>Set</Save>
          <Button onClick={() => setOpen(false)}>Not now</Button>
        </Row>
      </Column>
    </Form>
  )
}
