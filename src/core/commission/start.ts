import { named, startNeeds } from '../assess/needs'
import { wayHere } from '../assess/path'
import { told } from '../equipment/facts'
import { startOf } from '../loads/load'
import { sourceName } from '../source/store'
import { figure, quantity, together } from '../units/format'
import { electronicHoldsS } from '../wiring/trip-curve'
import {
  asked,
  byPlug,
  cause,
  expected,
  farOf,
  ours,
  type Proof,
  setUp,
  test,
  wayIn,
  wiringOf,
} from './scene'
import type { Test } from './tests'

/** While a motor starts its volts may dip to this share; lower and it may not come up. */
const dipFraction = 0.8
/** A measured start may differ from its figure by so much before the design is wrong. */
const startTolerance = 0.15

/** The largest start, and an overload on purpose: what opens, how it is reset. */
export function startTests(p: Proof): { tests: Test[]; open: string[] } {
  const { output } = p
  if (!output) return { tests: [], open: [] }
  const overloaded = overload(p, output.totalW)
  return { tests: [...largestStart(p), ...overloaded.tests], open: overloaded.open }
}

function largestStart(p: Proof): Test[] {
  const surge = { totalVA: p.output?.surgeW ?? Infinity, legVA: p.output?.legSurgeW ?? Infinity }
  const [worst] = startNeeds(p.loads, p.split, surge)
  if (!worst) return []
  const { need, load } = worst.load
  const worked = startOf(load, need.volts)
  if (!worked) return []
  const { startA } = worked.result
  const leastV = dipFraction * need.volts
  return [
    test(
      {
        id: `start:${load.id}`,
        group: 'start',
        text: `Start of ${load.name} on ${need.position}, on the source`,
        lines: [
          'From rest, with everything else on that may run then. Hold the lowest volts and the highest amps.',
        ],
        setUp: setUp(p, 'source', [`Everything on but ${load.name}; then it starts.`], {
          on: p.loads.filter(l => l.load.id !== load.id && !l.load.byHand).map(l => l.load.id),
        }),
        asks: [
          asked(
            'volts',
            'Lowest volts',
            'V',
            'volts',
            { ...farOf(need, need.volts === 240 ? ['H', 'H2'] : ['H', 'N']), place: `dip ${load.id}` },
            expected('V', leastV, 1.05 * need.volts, {
              formula: `${figure(dipFraction * 100)} % of ${need.volts} V`,
              tolerance: `at least ${quantity(leastV, 'V')}, ${ours}: below it contactors drop out and motors may not come up`,
              doubtFrom: 0.75 * need.volts,
            }),
          ),
          asked(
            'amps',
            'Highest amps',
            'A',
            'inrush',
            { place: `inrush ${load.id}`, at: `on the hot of ${named(need)}`, points: ['H'] },
            {
              ...expected('A', 0.4 * startA, startA * (1 + startTolerance), {
                formula: 'the start that the design has',
                tolerance: `${quantity(startTolerance, 'fraction')} above it, ${ours}; below two fifths of it the start was missed`,
                doubtFrom: 0,
                // more than that is a figure to take over, if it is one
                doubtTo: Number.POSITIVE_INFINITY,
              }),
              working: { ...worked.working, title: `Start of ${load.name}` },
            },
          ),
        ],
        causes: [
          cause(
            'start-hard',
            'It starts against pressure or load, or its capacitor is weak.',
            'Let it rest; measure again; else have it looked after.',
          ),
        ],
        circuitIds: [need.circuit.id],
        panelId: need.panel.id,
        restsOn: ['legs', `watts:${need.circuit.id}`],
        restMin: load.nature === 'compressor' ? 5 : 0,
        cite: ['430.7', '440.4'],
      },
      [wiringOf(need, p), load.id],
    ),
  ]
}

/** So far above what it gives, that what opens must open soon. */
const beyond = 1.1
/** Heaters as they are carried along, W. */
const heaterStepW = 500
const mostHeaterW = 1500

/** The fewest loads, the largest first, that together are clearly too much. */
function overload(p: Proof, totalW: number): { tests: Test[]; open: string[] } {
  const source = p.job.source
  if (!source) return { tests: [], open: [] }
  const sorted = [...p.loads].sort((a, b) => b.VA - a.VA)
  const all = sorted.reduce((sum, l) => sum + l.VA, 0)
  // what the house lacks a heater at an outlet brings, within reason
  const lacksW = totalW * beyond - all
  const heater = lacksW > 0 ? Math.ceil(lacksW / heaterStepW) * heaterStepW : 0
  const [at] = p.served.filter(n => n.circuit.poles === 1 && n.circuit.breakerA * 120 * 0.8 >= heater)
  if (heater > mostHeaterW || (heater > 0 && !at))
    return {
      tests: [],
      open: [
        `No overload on purpose: with everything on, ${quantity(all, 'VA')} of the ${quantity(totalW, 'W')} that the ${sourceName(source)} gives. A bank of heaters at the unit itself would do it.`,
      ],
    }
  const added: typeof sorted = []
  for (const load of sorted) if (added.reduce((sum, l) => sum + l.VA, 0) < totalW * beyond) added.push(load)
  const last = wayHere(p.job).at(-1)
  const unit = source.units[0]?.equipment
  const holdsS = (unit && 'overloadS' in unit ? told(unit.overloadS) : undefined) ?? electronicHoldsS
  // a breaker on the way opens only where the way is what limits; else the unit's own electronics do
  const byWay = p.output?.limitedBy === 'way' && last?.openedBy !== undefined && last.openedBy !== null
  const opens = byWay ? (last?.openedBy ?? '') : `the ${unit?.name}`
  const thermal = byWay && last?.within && last.within.at135S > holdsS ? last.within : null
  const within = thermal ? thermal.at135S : holdsS * 6
  return {
    tests: [
      test(
        {
          id: 'overload',
          group: 'start',
          text: 'Overload on purpose',
          lines: [
            `Switch on, one after the other: ${together([
              ...added.map(l => `${l.load.name} on ${l.need.position} (${quantity(l.VA, 'VA')})`),
              ...(heater && at
                ? [
                    `a heater of ${quantity(heater, 'W')} ${byPlug(p) ? 'at the unit' : `at an outlet of ${named(at)}`}`,
                  ]
                : []),
            ])}: ${quantity(added.reduce((s, l) => s + l.VA, 0) + heater, 'VA')} against ${quantity(totalW, 'W')}.`,
            'Somebody stands at the unit. What opened, after how long, and how it is reset goes on the card.',
          ],
          setUp: setUp(p, 'source', ['On the source, all of these off before.'], {
            on: added.map(l => l.load.id),
          }),
          asks: [
            {
              ...asked('opened', 'What opened', null, 'eyes', {
                place: 'overload',
                at: 'at the unit and the switch',
                points: ['device'],
              }),
              choices: [opens, 'another device', 'nothing within minutes'],
            },
            asked(
              's',
              'After',
              's',
              'watch',
              { place: 'overload', at: 'by the watch', points: ['time'] },
              expected('s', 0, within, {
                formula: `${opens} must open within this time`,
                tolerance: thermal
                  ? 'UL 489: within an hour at 135 % of its rating'
                  : `${quantity(holdsS, 's')} as stated or assumed, six times that, ${ours}`,
                references: thermal ? ['UL 489'] : [],
              }),
            ),
          ],
          causes: [
            cause(
              'guard-dead:overload',
              'Nothing opens on an overload.',
              'Off by hand at once; the protection is not what the plan has.',
            ),
          ],
          restsOn: ['legs'],
          cite: ['240.4', '110.3(B)'],
        },
        wayIn(p),
      ),
    ],
    open: [],
  }
}
