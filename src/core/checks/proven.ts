import type { Evaluated } from '../assess/evaluated'
import { capacityAsRead, loopAsRead, readOf } from '../assess/measured'
import { named } from '../assess/needs'
import { figureOf, lastRead, ofTests, overtaking, type TestEntry } from '../job/test-log'
import { doneIn } from '../job/work-log'
import { sharedOut, wattsExpected } from '../loads/as-read'
import { startOf } from '../loads/load'
import { leftOf } from '../source/store'
import { plural, quantity, together } from '../units/format'
import { ohmPerKft } from '../wiring/voltage-drop'
import type { Said } from './finding'

/** What was read when the house was commissioned, against the design: where they differ, the reading can be taken over. */

type ReadEntry = Extract<TestEntry, { kind: 'read' }>

const provenanceOf = (e: ReadEntry) => ({
  from: 'commissioned' as const,
  on: e.on,
  document: `Tests, ${e.by}${e.simulated ? ', simulated instrument' : ''}`.slice(0, 120),
})
const simulatedText = (e: ReadEntry) => (e.simulated ? ' (simulated instrument)' : '')
const target = (field: string) => ({ view: 'tests' as const, field })

export function testFailed({ job }: Evaluated): Said[] {
  const log = job.tests?.log ?? []
  const mended = new Map(ofTests(log, 'mended').map(e => [e.test, log.indexOf(e)]))
  return [...lastRead(log)].flatMap(([test, last]): Said[] => {
    const against = overtaking(
      log.filter(e => e.test === test),
      last,
    )
    const e = against?.kind === 'read' ? against : last
    // less capacity than designed is a figure to take over, told as such
    return e.judged !== 'failed' || test.startsWith('capacity:') || (mended.get(test) ?? -1) > log.indexOf(e)
      ? []
      : [
          {
            id: 'test.failed',
            severity: 'stop',
            sentence: `A test failed on ${e.on}: ${e.verdict || test}${simulatedText(e)}`,
            why: 'What does not prove itself is not handed over: it was read in the finished house.',
            remedy:
              'Open the test: it names what can be wrong. Put it right, write that down, and read again.',
            target: target(test),
            fixes: [],
          },
        ]
  })
}

export function measuredWatts({ job, needs }: Evaluated): Said[] {
  return [...readOf(job, 'watts')].flatMap(([circuitId, e]): Said[] => {
    const need = needs.find(n => n.circuit.id === circuitId)
    const W = figureOf(e, 'W')
    if (!need || W === undefined || !need.circuit.loads.length) return []
    const loads = need.circuit.loads.map(l => ({
      id: l.id,
      name: l.name,
      W: l.runningW.value,
      idleW: l.idleW.value,
    }))
    const all = wattsExpected(loads, e.ran)
    if (W >= all.from && W <= all.to) return []
    const shares = sharedOut(W, loads, e.ran)
    if (!shares.length) return []
    const { on, document } = provenanceOf(e)
    return [
      {
        id: 'measured.watts',
        severity: 'mind',
        sentence: `${named(need)} drew ${quantity(W, 'W')} as it came on; the plan has ${quantity(all.W, 'W')}${simulatedText(e)}.`,
        why:
          W > all.to
            ? 'The source carries more than was reckoned, and lasts shorter.'
            : 'It lasts longer than was reckoned, or something did not run.',
        remedy: `Where ${together(shares.map(s => s.name))} ran and nothing else, take it over${shares.length > 1 ? ': shared out as the plan has them' : ''}.`,
        target: target(e.test),
        fixes: [
          {
            label: `Take ${quantity(W, 'W')} over`,
            operations: shares.map(s => ({
              op: 'takeCommissioned' as const,
              circuitId,
              loadId: s.id,
              W: Math.round(s.W * 10) / 10,
              on,
              document,
            })),
          },
        ],
      },
    ]
  })
}

/** A start differs from its figure by more than a clamp does. */
const startShare = 0.15

export function measuredStart({ job, needs }: Evaluated): Said[] {
  return [...readOf(job, 'start')].flatMap(([loadId, e]): Said[] => {
    const need = needs.find(n => n.circuit.loads.some(l => l.id === loadId))
    const load = need?.circuit.loads.find(l => l.id === loadId)
    const inrushA = figureOf(e, 'amps')
    const said = need && load && startOf(load, need.volts)?.result.startA
    if (!need || !load || !said || inrushA === undefined || inrushA < 0.1) return []
    // below: a start that was hindered by the source is no figure of the motor
    if (inrushA <= said * (1 + startShare)) return []
    return [
      {
        id: 'measured.start',
        severity: 'mind',
        sentence: `${load.name} on ${need.position} started with ${quantity(inrushA, 'A')}; the design has ${quantity(said, 'A')}${simulatedText(e)}.`,
        why: 'The start decides whether the source carries the motor on top of what runs.',
        remedy:
          'Measured from rest, with inrush hold, twice alike: take it over; the checks on starts judge it anew.',
        target: target(e.test),
        fixes: [
          {
            label: `Take ${quantity(inrushA, 'A')} over`,
            operations: [
              {
                op: 'takeStart',
                circuitId: need.circuit.id,
                loadId,
                start: { method: 'inrush', inrushA: { value: inrushA, ...provenanceOf(e) } },
              },
            ],
          },
        ],
      },
    ]
  })
}

/** Beyond this a far outlet differs from its wires, V: as its test has it. */
const withinV = 2

export function measuredVolts({ job, needs }: Evaluated): Said[] {
  return [...readOf(job, 'far')].flatMap(([circuitId, e]): Said[] => {
    const need = needs.find(n => n.circuit.id === circuitId)
    const read = loopAsRead(e)
    if (!need || !read) return []
    const { wire, loopOhms } = need.circuit
    const way = (job.hookup.path ?? []).reduce(
      (sum, l) =>
        l.size && l.lengthFt
          ? sum + (2 * l.lengthFt * ohmPerKft(l.material ?? 'cu', l.size, 30)) / 1000
          : sum,
      0,
    )
    const ohms =
      loopOhms?.value ??
      (wire?.lengthFt ? way + (2 * wire.lengthFt * ohmPerKft(wire.material, wire.size, 30)) / 1000 : null)
    if (ohms === null || Math.abs(ohms - read.ohms) * read.amps <= withinV * (need.volts / 120)) return []
    return [
      {
        id: 'measured.volts',
        severity: 'mind',
        sentence: `The last outlet of ${named(need)} fell to ${quantity(read.loadedV, 'V')} at ${quantity(read.amps, 'A')}; its wires alone leave ${quantity(read.unloadedV - ohms * read.amps, 'V')}${simulatedText(e)}.`,
        why:
          read.ohms > ohms
            ? 'A joint is poor, or the way is longer than planned: what is poor gets warm.'
            : 'The way is shorter, or heavier, than planned.',
        remedy:
          read.ohms > ohms
            ? 'Look for a poor joint first. Where it is the length, take the measured ohms over.'
            : 'Take the measured ohms over.',
        target: target(e.test),
        fixes: [
          {
            label: `Take ${quantity(read.ohms, 'ohm')} over`,
            operations: [{ op: 'takeLoop', circuitId, loopOhms: { value: read.ohms, ...provenanceOf(e) } }],
          },
        ],
      },
    ]
  })
}

/** A capacity test repeats itself within this share. */
const capacityShare = 0.04

export function measuredCapacity({ job }: Evaluated): Said[] {
  const { source } = job
  if (!source) return []
  const read = readOf(job, 'capacity')
  return source.units.flatMap((unit): Said[] => {
    const e = read.get(unit.id)
    const tested = e && capacityAsRead(e, unit)
    if (!e || !tested) return []
    const left = leftOf(unit, source)
    if (Math.abs(tested.fraction - left) <= capacityShare || tested.fraction > 1.2 || tested.fraction < 0.2)
      return []
    return [
      {
        id: 'measured.capacity',
        severity: 'mind',
        sentence: `The ${unit.equipment.name} delivered ${quantity(tested.deliveredWh, 'Wh')}: ${quantity(tested.fraction, 'fraction')} of what its label gives at that load; the design reckons with ${quantity(left, 'fraction')}${simulatedText(e)}.`,
        why: 'Every hour of an outage is reckoned from it.',
        remedy:
          'Take the measured share over; a second test after a full charge and a night’s rest confirms it.',
        target: target(e.test),
        fixes: [
          {
            label: `Take ${quantity(tested.fraction, 'fraction')} over`,
            operations: [
              {
                op: 'editUnit',
                unitId: unit.id,
                facts: { capacity: { value: tested.fraction, ...provenanceOf(e) } },
              },
            ],
          },
        ],
      },
    ]
  })
}

export function measuredTransfer({ job }: Evaluated): Said[] {
  const [, e] = [...readOf(job, 'auto')].find(([key]) => key === 'loss') ?? []
  const unit = job.source?.units[0]?.equipment
  const said =
    job.source?.transferS?.value ??
    (unit?.kind === 'inverter' ? unit.transferSeconds : undefined) ??
    job.hookup.managed?.transferSeconds
  const s = e && figureOf(e, 's')
  if (!e || said === undefined || s === undefined || s <= Math.max(1.5 * said, said + 0.5)) return []
  return [
    {
      id: 'measured.transfer',
      severity: 'mind',
      sentence: `It was dark for ${quantity(s, 's')} when the utility was lost; its sheet says ${quantity(said, 's')}${simulatedText(e)}.`,
      why: 'Computers and alarms that were to bridge it do not.',
      remedy: 'Time it again; look at its settings. What stays is taken over.',
      target: target(e.test),
      fixes: [
        {
          label: `Take ${quantity(s, 's')} over`,
          operations: [{ op: 'timeTransfer', transferS: { value: s, ...provenanceOf(e) } }],
        },
      ],
    },
  ]
}

export function inspectionRemark({ job }: Evaluated): Said[] {
  const done = doneIn(job.work?.log ?? [])
  const open = ofTests(job.tests?.log ?? [], 'remark').filter(r => !done.has(`remark:${r.id}`))
  if (!open.length) return []
  return [
    {
      id: 'inspection.remark',
      severity: 'fix',
      sentence: `${plural(open.length, 'remark')} of the inspection ${open.length > 1 ? 'stand' : 'stands'} open: ${together(open.map(r => r.text))}.`,
      why: 'The authority decides; nothing is handed over before.',
      remedy: 'Each is a task of the work order: done there, it is corrected here.',
      target: target('inspection'),
      fixes: [],
    },
  ]
}
