import { type Circuit, formatVersion, type Job } from '@/core/job/schema'
import type { SourcedNumber } from '@/core/job/sourced'
import type { Load } from '@/core/loads/load'
import type { Origin } from '@/core/working'
import { rill6, sluice22 } from './catalogue'

/** The demo jobs. All made up; customers are called by their place. */

const says =
  (from: Origin, on?: string, document?: string) =>
  (value: number): SourcedNumber => ({ value, from, ...(on && { on }), ...(document && { document }) })

const typical = says('typical value')
const assumed = says('assumed')
const plate = says('nameplate', '2026-01-12', 'survey photographs')
const metered = (document: string) => says('metered', '2026-01-14', document)

type Facts = Partial<Omit<Load, 'runningW' | 'dutyFraction'>>
const load = (
  id: string,
  name: string,
  runningW: SourcedNumber,
  dutyFraction: SourcedNumber,
  facts: Facts = {},
): Load => ({
  id,
  name,
  runningW,
  dutyFraction,
  powerFactor: typical(1),
  idleW: assumed(0),
  nature: 'plain',
  byHand: false,
  needsBond: false,
  ...facts,
})

type CircuitFacts = Partial<Omit<Circuit, 'id' | 'position' | 'breakerA' | 'label'>>
const circuit = (position: number, breakerA: number, label: string, facts: CircuitFacts = {}): Circuit => ({
  id: `c${position}`,
  position,
  poles: 1,
  breakerA,
  label,
  wire: { material: 'cu', size: breakerA <= 15 ? '14' : breakerA <= 20 ? '12' : breakerA <= 30 ? '10' : '6' },
  neutral: { kind: 'own' },
  protection: 'none',
  tier: 3,
  picked: false,
  loads: [],
  ...facts,
})

const seen = { by: 'Field technician', on: '2026-01-12' }
const blank = (position: number, breakerA: number) =>
  circuit(position, breakerA, '', { neutral: { kind: 'unknown' }, wire: undefined })

/** Split-level house with a family day-care; ends on a six-position switch and one 120 V station on tied legs. */
export const alderHollow: Job = {
  formatVersion,
  title: 'Alder Hollow day-care',
  place: 'Split-level house, family child care on the ground floor',
  edition: 2020,
  step: 'prove',
  panel: {
    name: 'Main panel, garage',
    mainA: 150,
    spaces: 30,
    supply: 'service',
    circuits: [
      circuit(1, 40, 'Range', { poles: 2, neutral: { kind: 'own' }, traced: seen }),
      circuit(2, 15, 'Boiler and circulators', {
        traced: seen,
        tier: 1,
        picked: true,
        loads: [
          load(
            'boiler',
            'Gas boiler controls and fan',
            metered('boiler log, 48 h')(62),
            metered('boiler log, 48 h')(0.42),
            {
              idleW: metered('boiler log, 48 h')(6),
              nature: 'motor',
              start: { method: 'inrush', inrushA: metered('clamp meter, inrush hold')(6.2) },
            },
          ),
          load('circulators', 'Two circulators', plate(44), metered('boiler log, 48 h')(0.42), {
            powerFactor: plate(0.72),
            nature: 'motor',
            start: { method: 'multiple', multiple: typical(3) },
          }),
        ],
      }),
      circuit(4, 15, 'Living room outlets'),
      circuit(6, 20, 'Bathroom outlets', { protection: 'ground-fault' }),
      circuit(5, 20, 'Kitchen refrigerator', {
        traced: seen,
        tier: 1,
        picked: true,
        neutral: { kind: 'shared', with: 'c7' },
        loads: [
          load(
            'kitchen-refrigerator',
            'Kitchen refrigerator',
            metered('refrigerator log, 48 h')(118),
            metered('refrigerator log, 48 h')(0.29),
            {
              powerFactor: metered('refrigerator log, 48 h')(0.86),
              idleW: metered('refrigerator log, 48 h')(2),
              nature: 'compressor',
              start: { method: 'inrush', inrushA: metered('clamp meter, inrush hold')(11.4) },
            },
          ),
        ],
      }),
      circuit(7, 20, 'Kitchen counter', {
        traced: seen,
        tier: 2,
        picked: true,
        protection: 'ground-fault',
        neutral: { kind: 'shared', with: 'c5' },
        loads: [
          load('microwave', 'Microwave', plate(1080), assumed(0.012), {
            powerFactor: typical(0.93),
            byHand: true,
          }),
          load('bottle-warmer', 'Bottle warmer', plate(300), assumed(0.02), { byHand: true }),
        ],
      }),
      circuit(8, 30, 'Clothes dryer', { poles: 2, traced: seen }),
      circuit(9, 15, 'Playroom lights', {
        traced: seen,
        tier: 2,
        picked: true,
        loads: [
          load('playroom-lights', 'Playroom lights (LED)', plate(48), assumed(0.3), {
            powerFactor: typical(0.9),
          }),
        ],
      }),
      circuit(11, 15, 'Nap room and monitors', {
        traced: seen,
        tier: 1,
        picked: true,
        loads: [
          load(
            'monitors',
            'Baby monitors',
            metered('plug-in meter, 24 h')(7),
            metered('plug-in meter, 24 h')(1),
          ),
          load(
            'formula-refrigerator',
            'Formula refrigerator',
            metered('plug-in meter, 24 h')(74),
            metered('plug-in meter, 24 h')(0.24),
            {
              powerFactor: metered('plug-in meter, 24 h')(0.82),
              idleW: metered('plug-in meter, 24 h')(1),
              nature: 'compressor',
              start: { method: 'inrush', inrushA: metered('clamp meter, inrush hold')(8.1) },
            },
          ),
        ],
      }),
      blank(13, 15),
      circuit(12, 40, 'Heat-pump stub, unused', { poles: 2, loads: [] }),
      circuit(15, 15, 'Office and router', {
        tier: 2,
        picked: true,
        loads: [
          load(
            'router',
            'Router and modem',
            metered('plug-in meter, 24 h')(11),
            metered('plug-in meter, 24 h')(1),
          ),
        ],
      }),
      blank(16, 20),
      circuit(17, 20, 'Sump pump', {
        traced: seen,
        tier: 1,
        loads: [
          load('sump', 'Sump pump', plate(520), assumed(0.01), {
            powerFactor: plate(0.78),
            nature: 'motor',
            start: { method: 'locked-rotor', lockedRotorA: plate(24) },
          }),
        ],
      }),
      blank(18, 15),
      circuit(19, 15, 'Upstairs bedrooms', { protection: 'arc-fault' }),
      blank(20, 15),
      circuit(21, 20, 'Dishwasher', {
        loads: [load('dishwasher', 'Dishwasher', plate(1250), typical(0.03), { byHand: true })],
      }),
      blank(22, 20),
      circuit(23, 20, 'Laundry'),
      blank(24, 15),
      blank(25, 15),
      blank(26, 15),
    ],
  },
  source: { station: sluice22, expansionUnits: 1, arrangement: 'tied', liveLeg: 'L1' },
  hookup: { method: 'multi-circuit-switch', bondingPlug: false },
  outage: { hours: 36, startFraction: 1, reserveFraction: 0.05, deratingFraction: 0.95 },
  calculations: [
    {
      id: 'inlet-run',
      calculator: 'voltage-drop',
      note: 'inlet by the garage door to the panel',
      input: { material: 'cu', size: '10', oneWayFt: 35, currentA: 24, sourceV: 120, path: 'two-wire' },
    },
  ],
}
alderHollow.panel.circuits.sort((a, b) => a.position - b.position)

/** A book exchange with one hard-wired gas unit heater; the smallest station. Trap: flame proving wants a bond. */
export const fernbrook: Job = {
  formatVersion,
  title: 'Fernbrook library kiosk',
  place: 'Village book exchange, one room',
  edition: 2023,
  step: 'hook-up',
  panel: {
    name: 'Kiosk panel',
    mainA: 60,
    spaces: 8,
    supply: 'fed from another panel',
    circuits: [
      circuit(1, 15, 'Unit heater', {
        traced: { by: 'Designer', on: '2026-02-03' },
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
            },
          ),
        ],
      }),
      circuit(2, 15, 'Lights', {
        traced: { by: 'Designer', on: '2026-02-03' },
        loads: [load('lights', 'Lights (LED)', plate(36), assumed(0.3), { powerFactor: typical(0.9) })],
      }),
      circuit(3, 15, 'Router and outlets', {
        traced: { by: 'Designer', on: '2026-02-03' },
        tier: 2,
        picked: true,
        loads: [
          load('router', 'Router', metered('plug-in meter, 24 h')(8), metered('plug-in meter, 24 h')(1)),
        ],
      }),
      circuit(4, 20, 'Outside outlet', { protection: 'ground-fault' }),
    ],
  },
  source: { station: rill6, expansionUnits: 0, arrangement: 'one-leg', liveLeg: 'L1' },
  hookup: { method: 'cord-and-plug', bondingPlug: false },
  outage: { hours: 8, startFraction: 1, reserveFraction: 0.1, deratingFraction: 0.95 },
  calculations: [],
}

export const demoJobs = [
  { id: '5a1de000-0000-4000-8000-000000000001', job: alderHollow },
  { id: '5a1de000-0000-4000-8000-000000000005', job: fernbrook },
]
