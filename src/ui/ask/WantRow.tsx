import { Box, Button, FormControlLabel, MenuItem, Select, Switch } from '@mui/material'
import { ArrowDown, ArrowUp, X } from 'lucide-react'
import { memo, useState } from 'react'
import type { Want } from '@/core/ask/brief'
import { answeredOf, thingOf } from '@/core/ask/things'
import { answered, type Making } from '@/core/ask/want'
import { quantity } from '@/core/units/format'
import { Quiet, Row } from '../common/pieces'
import { Tool } from '../common/Tool'
import { Options } from '../form/Options'
import { useWorkspace } from '../workspace/store'
import { OwnFigures } from './OwnFigures'

interface Props {
  want: Want
  place: number
  of: number
  making: Making
  /** of a day; while it runs */
  dailyWh: number
  W: number
  at240: boolean
  circuits: readonly { id: string; name: string }[]
  onMove: (from: number, to: number) => void
}

/** A thing that must live: what it takes, the one question about it, and the circuit that carries it once there is one. */
export const WantRow = memo(function WantRow({
  want,
  place,
  of,
  making,
  dailyWh,
  W,
  at240,
  circuits,
  onMove,
}: Props) {
  const act = useWorkspace(s => s.act)
  const say = useWorkspace(s => s.say)
  const [changing, setChanging] = useState(false)
  const thing = thingOf(want.thing)
  const put = (next: Want) => act({ op: 'putWant', want: next })
  const carried = want.circuitIds.length > 0
  const open = thing?.ask && !answeredOf(thing, want.answers) && !carried
  return (
    <Box sx={{ flex: 1, minWidth: 0, overflowWrap: 'anywhere' }}>
      <Row sx={{ flexWrap: 'nowrap', minHeight: 40 }} spacing={0}>
        <Box sx={{ flex: 1, minWidth: 0 }}>
          {place + 1}. {want.name}
        </Box>
        <Tool
          label={`${want.name}: more important`}
          disabled={place === 0}
          onClick={() => onMove(place, place - 1)}
          icon={ArrowUp}
        />
        <Tool
          label={`${want.name}: less important`}
          disabled={place === of - 1}
          onClick={() => onMove(place, place + 1)}
          icon={ArrowDown}
        />
        <Tool
          label={`Take ${want.name} off the list`}
          onClick={() => act({ op: 'removeWant', wantId: want.id })}
          icon={X}
        />
      </Row>
      <Row sx={{ justifyContent: 'space-between', columnGap: 2, rowGap: 0 }}>
        <Quiet>
          {W > 0
            ? `${quantity(dailyWh, 'Wh')} a day, ${quantity(W, 'W')} while it runs${at240 ? ', 240 V' : ''}`
            : carried
              ? 'on its circuit'
              : 'not in the library'}
        </Quiet>
        <FormControlLabel
          sx={{ mr: 0, flex: 'none' }}
          control={
            <Switch
              size="small"
              checked={!want.nice}
              slotProps={{ input: { 'aria-label': `${want.name} must live` } }}
              onChange={(_, must) => {
                const { nice: _nice, ...rest } = want
                put(must ? rest : { ...rest, nice: true })
              }}
            />
          }
          label={want.nice ? 'may go' : 'must'}
        />
      </Row>
      {thing?.ask && !carried && !open && !changing && (
        <Button size="small" onClick={() => setChanging(true)}>
          {thing.ask} {answeredOf(thing, want.answers)?.label}
        </Button>
      )}
      {thing?.ask && !carried && (open || changing) && (
        <Box sx={{ pl: 1.25, borderLeft: 4, borderLeftColor: 'water.live' }} data-question={thing.id}>
          <Options
            label={thing.ask}
            value={want.answers?.kind}
            options={thing.options.map(o => ({ value: o.id, label: o.label }))}
            onChange={kind => {
              put(answered(want, String(kind), making))
              setChanging(false)
            }}
            onAgain={() => put(answered(want, null, making))}
          />
        </Box>
      )}
      {!carried && !thing && <OwnFigures want={want} onSet={put} />}
      {circuits.length > 0 && (
        <Select
          variant="standard"
          displayEmpty
          fullWidth
          value={circuits.find(c => c.id === want.circuitIds[0])?.id ?? ''}
          inputProps={{ 'aria-label': `Circuit that carries ${want.name}` }}
          onChange={e => {
            const [fault] = act({
              op: 'giveWant',
              wantId: want.id,
              circuitIds: e.target.value ? [e.target.value] : [],
            })
            if (fault) say(fault.message)
          }}
        >
          <MenuItem value="">circuit not known yet</MenuItem>
          {circuits.map(c => (
            <MenuItem key={c.id} value={c.id}>
              {c.name}
            </MenuItem>
          ))}
        </Select>
      )}
    </Box>
  )
})
