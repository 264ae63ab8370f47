import {
  Alert,
  Box,
  Button,
  Chip,
  MenuItem,
  Paper,
  TextField,
  ToggleButton,
  ToggleButtonGroup,
} from '@mui/material'
import { Gauge, Hand, Hourglass } from 'lucide-react'
import { useState } from 'react'
import { readingText } from '@/core/commission/judge'
import { type Asked, instruments, type Test } from '@/core/commission/tests'
import { Fold } from '../common/Fold'
import { Column, Columns, Quiet, Row } from '../common/pieces'
import { text } from '../theme/tokens'
import type { Bench } from './useBench'

/** What an instrument showed last, and of which reading. */
export interface Shown {
  asked: Asked
  value: number | string
  notice: string | null
}

interface Props {
  bench: Bench
  test: Test
  asked: Asked
  shown: Shown | null
  onShown: (shown: readonly Shown[]) => void
}

const shownAtOnce = 4

/** A simulated instrument at one reading: how the house stands, the dial, what a hand may do wrong, and the figure that it shows. */
export function Dial({ bench, test, asked, shown, onShown }: Props) {
  const [dial, setDial] = useState<'V' | 'mV' | 'Ω'>('V')
  const [pair, setPair] = useState('')
  const meter = asked.instrument === 'volts' || asked.instrument === 'tester'
  const differs = bench.differs(test, asked)
  const others = meter ? pairsAt(test) : []
  const read = () => {
    const points = others.find(o => o.join('–') === pair)
    const { value, notice } = bench.read(test, asked, {
      ...(meter && dial !== 'V' && { dial }),
      ...(points && { points }),
    })
    onShown([{ asked, value, notice }])
  }
  const readAll = () => onShown(bench.readAll(test).map((r, n) => ({ asked: test.asks[n] ?? asked, ...r })))
  const hasCompressor = test.restMin > 0
  return (
    <Paper
      variant="outlined"
      component="section"
      aria-label={`Simulated instrument: ${asked.name}`}
      sx={{ p: 1.5, bgcolor: 'background.default' }}
    >
      <Column>
        <Row>
          <Chip size="small" variant="outlined" label="simulated" />
          <Quiet sx={{ flex: 1 }}>
            {instruments[asked.instrument].name}, {asked.probe.at}
          </Quiet>
        </Row>
        {differs.length > 0 ? (
          <Alert severity="info" icon={false}>
            <b>The made-up house stands otherwise.</b> This reading wants{' '}
            {differs.slice(0, shownAtOnce).join('; ')}
            {differs.length > shownAtOnce && `; and ${differs.length - shownAtOnce} more`}.
          </Alert>
        ) : (
          <Quiet>The made-up house stands as this reading wants it.</Quiet>
        )}
        <Columns least={130}>
          <Button
            variant={differs.length ? 'contained' : 'outlined'}
            startIcon={<Hand size={20} aria-hidden />}
            disabled={!differs.length}
            onClick={() => bench.set(test, asked)}
          >
            Set it so
          </Button>
          <Button
            variant={differs.length ? 'outlined' : 'contained'}
            startIcon={<Gauge size={20} aria-hidden />}
            onClick={read}
          >
            Read {asked.name.length > 24 ? 'it' : asked.name}
          </Button>
        </Columns>
        {shown && (
          <>
            <Display value={shown.value} asked={shown.asked} />
            {shown.notice && <Alert severity="error">{shown.notice}</Alert>}
          </>
        )}
        {test.asks.length > 2 && (
          <Button size="small" onClick={readAll} sx={{ alignSelf: 'start' }}>
            Set and read all {test.asks.length}, one after the other
          </Button>
        )}
        {hasCompressor && (
          <Button
            size="small"
            startIcon={<Hourglass size={18} aria-hidden />}
            onClick={bench.rest}
            sx={{ alignSelf: 'start' }}
          >
            Let {test.restMin} minutes pass
          </Button>
        )}
        <Fold title="By hand: dial, points, handles">
          {() => (
            <Column>
              {meter && (
                <Row>
                  <ToggleButtonGroup
                    exclusive
                    size="small"
                    value={dial}
                    onChange={(_, next) => next && setDial(next)}
                    aria-label="Dial of the meter"
                  >
                    {(['V', 'mV', 'Ω'] as const).map(d => (
                      <ToggleButton key={d} value={d}>
                        {d === 'Ω' ? d : `${d}~`}
                      </ToggleButton>
                    ))}
                  </ToggleButtonGroup>
                  {others.length > 1 && (
                    <TextField
                      select
                      label="Probes at"
                      value={pair}
                      onChange={e => setPair(e.target.value)}
                      sx={{ minWidth: 150 }}
                      slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
                    >
                      <MenuItem value="">as asked</MenuItem>
                      {others.map(o => (
                        <MenuItem key={o.join('–')} value={o.join('–')}>
                          {o.join('–')}
                        </MenuItem>
                      ))}
                    </TextField>
                  )}
                </Row>
              )}
              <Handles bench={bench} />
            </Column>
          )}
        </Fold>
      </Column>
    </Paper>
  )
}

/** Pairs of points at the place of a test: what a probe may be held to by mistake. */
const pairsAt = (test: Test): [string, string][] => {
  const seen = new Map<string, [string, string]>()
  for (const { probe, unit } of test.asks) {
    const [a, b] = probe.points
    if (unit === 'V' && b !== undefined) seen.set(`${a}–${b}`, [a, b])
  }
  return [...seen.values()]
}

/** What it shows: figures to be read at arm’s length, and where they stand against what is expected, as water in a tube. */
function Display({ value, asked }: { value: number | string; asked: Asked }) {
  const { expected, unit } = asked
  const shown = typeof value === 'number' ? readingText(value, unit) : value
  const most =
    expected && typeof value === 'number' && Number.isFinite(expected.to)
      ? Math.max(expected.to * 1.25, Math.abs(value) * 1.1, 1e-6)
      : null
  const at = (v: number) => 8 + (344 * Math.max(0, Math.min(v, most ?? 1))) / (most ?? 1)
  return (
    <Box
      role="status"
      aria-label={`${asked.name}: it shows ${shown}`}
      sx={{ bgcolor: 'background.paper', border: 1, borderColor: 'divider', borderRadius: 1, p: 1 }}
    >
      <Quiet component="span">{asked.name}</Quiet>
      <Box
        sx={{
          fontSize: text.huge,
          fontWeight: 800,
          lineHeight: 1.1,
          fontVariantNumeric: 'tabular-nums',
          textAlign: 'right',
          overflowWrap: 'anywhere',
        }}
      >
        {shown}
      </Box>
      {expected && most !== null && typeof value === 'number' && (
        <Box
          component="svg"
          viewBox="0 0 360 34"
          aria-hidden
          sx={{ width: 1, display: 'block', fontSize: text.mini, fill: 'currentColor' }}
        >
          <rect x="8" y="6" width="344" height="12" rx="6" fill="var(--mui-palette-water-dry)" />
          <rect x="8" y="6" width={at(value) - 8} height="12" rx="6" fill="var(--mui-palette-water-deep)" />
          <path
            d={`M${at(expected.from)} 2v20M${at(expected.to)} 2v20`}
            stroke="currentColor"
            strokeWidth="2"
          />
          <text x={Math.min(at(expected.to), 340)} y="33" textAnchor="middle">
            expected
          </text>
        </Box>
      )}
    </Box>
  )
}

/** Every handle of the made-up house, as a hand would turn it. */
function Handles({ bench }: { bench: Bench }) {
  const main = bench.handles
    .filter(h => h.kind !== 'breaker' || h.id === 'backfed')
    .sort((a, b) => (a.kind === b.kind ? a.name.localeCompare(b.name, 'en-US', { numeric: true }) : 0))
  return (
    <>
      {main.map(h => (
        <Row key={h.id} sx={{ justifyContent: 'space-between' }}>
          <span>{h.name}</span>
          <ToggleButtonGroup
            exclusive
            size="small"
            value={bench.stands.state[h.id] ?? h.open}
            onChange={(_, next) => next && bench.turn(h.id, next)}
            aria-label={h.name}
          >
            {h.settings.map(s => (
              <ToggleButton key={s} value={s}>
                {s}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
        </Row>
      ))}
    </>
  )
}
