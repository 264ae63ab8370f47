import { decisive } from '../assess/balance'
import { runOf } from '../assess/energy'
import type { Evaluated } from '../assess/evaluated'
import { named } from '../assess/needs'
import { methodOf } from '../hookup/method'
import { shortName } from '../source/short-name'
import { quantity, together } from '../units/format'
import type { Said } from './finding'

/** Two units side by side, the autotransformer, and what comes on by itself. */

const arrangement = { view: 'source', field: 'arrangement' } as const

export function yAdapter({ job, needs }: Evaluated): Said[] {
  const { source } = job
  if (!source) return []
  const { combiner } = source
  const plainY = combiner && !combiner.synchronises && source.units.length > 1
  const picked = needs.filter(n => n.circuit.picked && n.volts === 240)
  const presented = plainY || (source.arrangement === 'independent' && picked.length > 0)
  if (!presented) return []
  return [
    {
      id: 'y-adapter',
      severity: 'stop',
      sentence: plainY
        ? `The ${combiner.name} joins ${shortName(source)} to one plug, and nothing synchronises them: that is not split phase.`
        : `${together(picked.map(named))} would hang between ${shortName(source)}, which nothing synchronises.`,
      why: 'Between the legs stands anything from nothing to 240 V, wandering: motors burn, electronics fail, a shared neutral carries the sum.',
      remedy:
        'Take a combiner that synchronises the two, an autotransformer on one of them, or leave 240 V out.',
      target: arrangement,
      fixes: [
        ...(plainY
          ? [
              {
                label: `Take the ${combiner.name} out`,
                operations: [{ op: 'setSource' as const, facts: {}, clear: ['combiner' as const] }],
              },
            ]
          : picked.map(n => ({
              label: `Drop ${named(n)}`,
              operations: [{ op: 'selectCircuit' as const, circuitId: n.circuit.id, picked: false }],
            }))),
      ],
    },
  ]
}

export function autotransformerLimit({ job, figures }: Evaluated): Said[] {
  const { source } = job
  const { output, together: sums } = figures
  if (source?.arrangement !== 'autotransformer' || !source.autotransformer || !output) return []
  const made = source.liveLeg === 'L1' ? 'L2' : 'L1'
  const whole = decisive(sums.both, output.totalW, output.lasting.totalW)
  const legs = ([made, source.liveLeg] as const).map(leg => ({
    leg,
    ...decisive(sums[leg], output.legW[leg], output.lasting.legW[leg]),
  }))
  const full = legs.find(l => l.needVA > l.haveVA)
  const over = whole.needVA > whole.haveVA
  if (!over && !full) return []
  const { name } = source.autotransformer
  const lasts = (lasting: boolean) => (lasting ? ' for three hours or more' : '')
  return [
    {
      id: 'autotransformer.limit',
      severity: 'stop',
      sentence:
        over || !full
          ? `${quantity(whole.needVA, 'VA')} run together${lasts(whole.lasting)}; through the ${name} the ${shortName(source)} gives ${quantity(whole.haveVA, 'VA')}.`
          : full.leg === made
            ? `${made}, which the ${name} makes, carries ${quantity(full.needVA, 'VA')}${lasts(full.lasting)}; one winding gives ${quantity(full.haveVA, 'VA')}.`
            : `${full.leg} carries ${quantity(full.needVA, 'VA')}${lasts(full.lasting)}; the ${shortName(source)} gives it ${quantity(full.haveVA, 'VA')}.`,
      why: 'Its breaker opens, or the unit trips: everything on both legs goes dark.',
      remedy:
        over || full?.leg !== made
          ? 'Drop a circuit, or take a larger unit.'
          : `Move 120 V circuits to ${source.liveLeg}, which the unit feeds directly.`,
      target: arrangement,
      fixes: [],
    },
  ]
}

export function autotransformerIdle({ job, figures }: Evaluated): Said[] {
  const { source } = job
  const { run, mean } = figures
  if (source?.arrangement !== 'autotransformer' || !source.autotransformer || !run) return []
  const { autotransformer } = source
  const without = runOf(
    { ...job, source: { ...source, autotransformer: { ...autotransformer, idleW: 0 } } },
    mean,
  )
  const lost = (without?.hours ?? run.hours) - run.hours
  return [
    {
      id: 'autotransformer.idle',
      severity: 'mind',
      sentence: `The ${autotransformer.name} draws ${quantity(autotransformer.idleW, 'W')} day and night and hums: it costs ${quantity(lost, 'h')} of ${quantity(without?.hours ?? run.hours, 'h')}.`,
      why: 'A pump that runs minutes a day keeps the transformer on for all of it.',
      remedy:
        'Switch it on only while 240 V is needed, by hand or by the float’s own contact, or take a source that makes both legs.',
      target: arrangement,
      fixes: [],
    },
  ]
}

export function autoFullLoad({ job, figures }: Evaluated): Said[] {
  const method = methodOf(job.hookup.method)
  const { output, together: sums } = figures
  const sheds = job.hookup.managed?.sheds ?? method.sheds
  if (!method.automatic || sheds || !output || sums.both.everythingVA <= output.totalW) return []
  return [
    {
      id: 'auto.full-load',
      severity: 'fix',
      sentence: `What hangs on the automatic hook-up asks for ${quantity(sums.both.everythingVA, 'VA')} with everything on; ${job.source ? shortName(job.source) : 'the source'} carries ${quantity(output.totalW, 'VA')}, and nothing sheds.`,
      why: 'Nobody is there to choose: it takes over with whatever happens to run, and trips.',
      remedy: 'Move circuits back, take a larger source, or a panel that sheds by itself.',
      target: { view: 'hook-up', field: 'method' },
      fixes: [],
    },
  ]
}
