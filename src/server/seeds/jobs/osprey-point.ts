import { withHookupChanges } from '@/core/job/hookup-changes'
import { formatVersion, type Job } from '@/core/job/schema'
import { cordL1430, eddy12, inletL1430, interlockG, tailrace5k } from '../catalogue'
import {
  assumed,
  circuit,
  linkOfCord,
  load,
  panel,
  panelPhotos,
  plate,
  plateOf,
  sorted,
  typical,
  unit,
  wanted,
} from './making'

const seen = { by: 'Designer', on: '2026-02-11', found: 'known' as const }

/** Boathouse: a small panel fed from below, numbered in sequence, its first row on L2; a 240 V pump on a 120 V station. */
export const ospreyPoint: Job = withHookupChanges({
  formatVersion,
  planned: [],
  title: 'Osprey Point boathouse',
  place: 'Boathouse on the water',
  edition: 2020,
  step: 'hook-up',
  brief: {
    season: 'spring',
    timesPerYear: 6,
    atHome: 'seldom',
    automatic: 'would be nice',
    water: 'utility',
    wastewater: 'pumped',
    heat: 'none',
    largestMotor: 'Bilge-pit pump, 1/2 hp',
    largestMotorVolts: '240',
    lockedRotorA: 22,
    solar: 'no',
    generator: 'no',
    station: 'yes',
    stationWhat: 'An older 120 V station, 1,500 W',
    inlet: 'no',
    coldestC: -8,
    wants: [
      {
        id: 'bilge',
        name: 'Bilge-pit pump',
        circuitIds: ['c1'],
        thing: 'sump',
        answers: { kind: 'half' },
        takenIds: ['bilge'],
      },
      { id: 'light', name: 'Lights', circuitIds: ['c2'], thing: 'lights', takenIds: ['lights'] },
      // asked for on the first call, and on no circuit yet
      wanted('phones', 'Phone charging', 'phone charging'),
      { ...wanted('fridge', 'Bait refrigerator', 'refrigerator'), nice: true as const },
    ],
  },
  requests: [
    { key: 'photo:panel:main', state: 'good enough' },
    { key: 'photo:directory:main', state: 'good enough' },
    { key: 'photo:sticker:main', state: 'good enough' },
    { key: 'photo:wall', state: 'good enough' },
    { key: 'photo:station', state: 'asked' },
    { key: 'interval-data', state: 'refused', note: 'Billed with the house' },
  ],
  photos: [
    ...panelPhotos('6', 'main'),
    plateOf(
      '605',
      'Nameplate, bilge-pit pump',
      { kind: 'load', circuitId: 'c1', loadId: 'bilge' },
      '1/2 hp, 230 V, 4.2 A, LRA 22',
    ),
  ],
  panels: [
    panel('main', 'Boathouse panel', 8, 60, {
      busA: 100,
      numbering: 'in sequence',
      feedsFrom: 'bottom',
      busLegs: 'L2',
      supply: 'fed from another panel',
      where: 'Outside, landward wall',
      exposure: 'wet',
      clearDepthIn: 60,
      series: 'Gauge G-8',
      breakerTypes: ['GA'],
      tandemSpaces: [],
      unusable: [8],
      circuits: sorted([
        circuit(1, 15, 'Bilge-pit pump', {
          poles: 2,
          traced: seen,
          tier: 1,
          picked: true,
          loads: [
            load('bilge', 'Bilge-pit pump, 1/2 hp', plate(700), assumed(0.05), {
              powerFactor: typical(0.75),
              nature: 'motor',
              motorType: 'capacitor-start',
              connection: 'hard-wired',
              start: { method: 'locked-rotor', lockedRotorA: plate(22) },
            }),
          ],
        }),
        circuit(2, 15, 'Lights', {
          traced: seen,
          tier: 2,
          picked: true,
          loads: [load('lights', 'Lights (LED)', plate(60), assumed(0.25), { powerFactor: typical(0.9) })],
        }),
        circuit(4, 20, 'Dock outlets', { traced: seen, protection: 'ground-fault' }),
        circuit(5, 20, 'Winch', { neutral: { kind: 'unknown' } }),
      ]),
    }),
  ],
  source: {
    units: [unit('u1', eddy12, { owned: true })],
    arrangement: 'autotransformer',
    liveLeg: 'L1',
    autotransformer: tailrace5k,
    stands: { exposure: 'indoors', coldestC: -8 },
  },
  hookup: {
    method: 'interlocked-inlet',
    bondingPlug: false,
    interlock: interlockG,
    inlet: inletL1430,
    backfed: { breakerA: 20, heldDown: true },
    ground: 'continuous',
    sourceNeutral: 'lands',
    path: [
      linkOfCord(cordL1430, 'l1'),
      { id: 'l2', kind: 'inlet', name: 'Sill L14-30', from: 'L14-30', ratingA: 30, listed: true },
      {
        id: 'l3',
        kind: 'wire',
        name: 'Inlet to panel',
        ratingA: 30,
        material: 'cu',
        size: '10',
        lengthFt: 12,
      },
      { id: 'l4', kind: 'breaker', name: 'Backfed breaker', ratingA: 20 },
    ],
  },
  wiring: {
    sketch: {
      boxes: [
        { of: 'panel-main', leftFt: 0, bottomFt: 3.5, widthFt: 1.25, heightFt: 2.5 },
        {
          of: 'the box where the autotransformer joins',
          leftFt: 4.25,
          bottomFt: 4.5,
          widthFt: 0.5,
          heightFt: 0.5,
        },
        { of: 'Tailrace 5k', leftFt: 4, bottomFt: 1.5, widthFt: 1, heightFt: 1.5 },
        { of: 'inlet', leftFt: 14.5, bottomFt: 2.25, widthFt: 0.5, heightFt: 0.5 },
      ],
    },
  },
  outage: { hours: 24, startFraction: 1, reserveFraction: 0.1, deratingFraction: 0.9 },
  calculations: [],
})
