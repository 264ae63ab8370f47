import { withHookupChanges } from '@/core/job/hookup-changes'
import { formatVersion, type Job } from '@/core/job/schema'
import { rill6 } from '../catalogue'
import {
  assumed,
  circuit,
  load,
  metered,
  panel,
  panelPhotos,
  plate,
  plateOf,
  sorted,
  typical,
  unit,
} from './making'

/** A book exchange with one hard-wired gas unit heater; the smallest station. Trap: flame proving wants a bond. */
export const fernbrook: Job = withHookupChanges({
  formatVersion,
  planned: [],
  title: 'Fernbrook library kiosk',
  place: 'Village book exchange, one room',
  edition: 2023,
  step: 'hook-up',
  brief: {
    season: 'winter',
    timesPerYear: 4,
    atHome: 'nobody lives there',
    automatic: 'would be nice',
    dailyUse: 'no',
    medical: 'no',
    heat: 'gas or oil burner',
    water: 'utility',
    wastewater: 'by gravity',
    solar: 'no',
    generator: 'no',
    vehicle: 'no',
    station: 'no',
    inlet: 'no',
    access: 'Key box beside the door',
    budget: 900,
    wants: [
      { id: 'heat', name: 'Unit heater', circuitIds: ['c1'] },
      { id: 'router', name: 'Router', circuitIds: ['c3'] },
    ],
  },
  requests: [
    { key: 'photo:panel:main', state: 'good enough' },
    { key: 'photo:directory:main', state: 'good enough' },
    { key: 'photo:sticker:main', state: 'refused', note: 'The sticker is gone' },
    { key: 'photo:wall', state: 'good enough' },
    { key: 'nameplate:burner', state: 'good enough' },
    { key: 'interval-data', state: 'refused', note: 'The village pays no bill of its own' },
  ],
  photos: [
    ...panelPhotos('5', 'main').filter(p => p.name !== 'Sticker in the panel'),
    plateOf(
      '505',
      'Nameplate, unit heater',
      { kind: 'load', circuitId: 'c1', loadId: 'heater' },
      '115 V, 1.0 A, flame proving by current to ground',
      'nameplate:burner',
    ),
  ],
  panels: [
    {
      ...panel('main', 'Kiosk panel', 8, 60, {
        where: 'Beside the door',
        exposure: 'indoors',
        clearDepthIn: 40,
      }),
      supply: 'fed from another panel',
      circuits: sorted([
        circuit(1, 15, 'Unit heater', {
          traced: { by: 'Designer', on: '2026-02-03', found: 'known' },
          tier: 1,
          picked: true,
          loads: [
            load(
              'heater',
              'Gas unit heater, fan and igniter',
              metered('plug-in meter, 24 h')(92),
              metered('plug-in meter, 24 h')(0.38),
              {
                powerFactor: plate(0.8),
                idleW: metered('plug-in meter, 24 h')(3),
                nature: 'motor',
                start: { method: 'inrush', inrushA: metered('clamp meter, inrush hold')(4.6) },
                needsBond: true,
                connection: 'hard-wired',
              },
            ),
          ],
        }),
        circuit(2, 15, 'Lights', {
          traced: { by: 'Designer', on: '2026-02-03', found: 'known' },
          loads: [load('lights', 'Lights (LED)', plate(36), assumed(0.3), { powerFactor: typical(0.9) })],
        }),
        circuit(3, 15, 'Router and outlets', {
          traced: { by: 'Designer', on: '2026-02-03', found: 'known' },
          tier: 2,
          picked: true,
          loads: [
            load('router', 'Router', metered('plug-in meter, 24 h')(8), metered('plug-in meter, 24 h')(1), {
              connection: 'plug',
            }),
          ],
        }),
        circuit(4, 20, 'Outside outlet', { protection: 'ground-fault' }),
      ]),
    },
  ],
  source: { units: [unit('u1', rill6)], arrangement: 'one-leg', liveLeg: 'L1' },
  hookup: {
    method: 'cord-and-plug',
    bondingPlug: false,
    path: [
      {
        id: 'l1',
        kind: 'cord',
        name: 'Tow 5-15, 12 ft',
        from: '5-15',
        to: '5-15',
        ratingA: 15,
        material: 'cu',
        size: '14',
        lengthFt: 12,
        listed: true,
      },
    ],
  },
  wiring: {
    sketch: {
      boxes: [
        {
          of: 'box at the Gas unit heater, fan and igniter',
          leftFt: 2,
          bottomFt: 5,
          widthFt: 0.5,
          heightFt: 0.5,
        },
      ],
    },
  },
  outage: { hours: 8, startFraction: 1, reserveFraction: 0.1, deratingFraction: 0.95 },
  calculations: [],
})
