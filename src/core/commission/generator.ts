import { chargeW } from '../source/inputs'
import { quantity } from '../units/format'
import { lineV } from './legs'
import { asked, cause, expected, ours, type Proof, seen, setUp, test } from './scene'
import type { Test } from './tests'

const warmMin = 3
const fuelTolerance = 0.3
const hertz = 60

/** The generator that charges: at its charger’s draw, outdoors. */
export function generatorTests(p: Proof): Test[] {
  const own = p.job.source?.generator
  if (!own) return []
  const { equipment } = own
  const drawW = Math.min(chargeW(p.job) ?? equipment.continuousW, equipment.continuousW)
  const perHour = drawW / equipment.WhPerGallon
  const two = equipment.voltage === '120/240'
  const place = (what: string) =>
    ({ place: 'generator', at: `at the ${equipment.name}`, points: [what] }) as const
  return [
    test(
      {
        id: 'generator',
        group: 'generator',
        text: `${equipment.name} at the charger’s draw`,
        lines: [
          `Outdoors, exhaust away from windows. ${warmMin} minutes warm before the charger is put on.`,
          'Fuel by the marks of its tank over half an hour or more.',
        ],
        setUp: setUp(p, 'dead', ['Generator running, the source charging from it.']),
        asks: [
          seen('co', 'Carbon monoxide alarms inside', { ...place('co'), place: 'alarms' }, [
            'tested, silent now',
            'missing or not tested',
            'sounding',
          ]),
          asked(
            'V',
            'Volts',
            'V',
            'plug',
            place('V'),
            expected('V', lineV.doubtFrom * (two ? 2 : 1), lineV.doubtTo * (two ? 2 : 1), {
              formula: `${two ? 240 : 120} V at the draw of the charger`,
              tolerance: `${quantity(lineV.doubtFrom * (two ? 2 : 1), 'V')} to ${quantity(lineV.doubtTo * (two ? 2 : 1), 'V')}, ${ours}`,
            }),
          ),
          asked(
            'Hz',
            'Frequency',
            'Hz',
            'plug',
            place('Hz'),
            expected('Hz', hertz - 3, hertz + 3, {
              formula: '60 Hz',
              tolerance: `± 3 Hz, ${ours}: most chargers refuse more`,
              doubtFrom: hertz - 5,
              doubtTo: hertz + 5,
            }),
          ),
          asked(
            'fuel',
            'Fuel',
            'gal/h',
            'eyes',
            place('fuel'),
            expected('gal/h', perHour * (1 - fuelTolerance), perHour * (1 + fuelTolerance), {
              formula: `${quantity(drawW, 'W')} ÷ ${quantity(equipment.WhPerGallon, 'Wh/gal')}`,
              tolerance: `± ${quantity(fuelTolerance, 'fraction')}, ${ours}: marks of a tank are coarse`,
              doubtFrom: 0,
              doubtTo: perHour * 2,
            }),
          ),
        ],
        causes: [
          cause(
            'generator-poor',
            'It does not hold volts, speed or its thirst.',
            'Let it be serviced; charge slower meanwhile.',
          ),
        ],
        cite: ['702.5', '110.3(B)'],
      },
      [equipment.id, equipment.version],
    ),
  ]
}
