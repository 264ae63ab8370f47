import { calculate } from '../calculator'
import { withFigure, withStart } from '../loads/evidence'
import { type Known, type Load, loadSchema, type Start } from '../loads/load'
import { loadLog } from '../loads/load-log'
import { start } from '../loads/start'
import { weatherScale } from '../loads/weather-scale'
import { parseWith } from '../outcome'
import type { Circuit } from '../panel/schema'
import { quantity } from '../units/format'
import type { Operation } from './operations'
import { placeText } from './panels'
import type { Calculation, Job } from './schema'

/** One way a calculation of the bench can go into a job. */
export interface Use {
  label: string
  help: string
  operation: Operation
}

type Figures = (load: Load, volts: number) => { load: unknown; help: string } | null

/** What the calculation says of a load, as the figures a load is made of; null where it says nothing of one. */
function figuresFor({ calculator, input }: Calculation, on: string): Figures | null {
  if (calculator === 'load-log') {
    const worked = calculate(loadLog, input)
    const given = loadLog.input.safeParse(input)
    if (!worked.ok || !given.success) return null
    const metered = (value: number): Known => ({
      value,
      from: 'metered',
      on,
      document: 'calculation of the bench',
    })
    const { meanW, dutyFraction } = worked.value.result
    return load => ({
      load: {
        ...load,
        runningW: withFigure(load.runningW, metered(given.data.runningW)),
        idleW: withFigure(load.idleW, metered(given.data.idleW)),
        dutyFraction: withFigure(load.dutyFraction, metered(dutyFraction)),
      },
      help: `${quantity(meanW, 'W')} average, metered`,
    })
  }
  if (calculator === 'weather-scale') {
    const worked = calculate(weatherScale, input)
    const given = weatherScale.input.safeParse(input)
    if (!worked.ok || !given.success) return null
    const { dutyFraction } = worked.value.result
    const document = `measured at ${quantity(given.data.measuredC, 'C')}, scaled to ${quantity(given.data.designC, 'C')}`
    return load => ({
      load: {
        ...load,
        // it stands for the temperature it was scaled to: an outage in other weather scales it on from there
        dutyFraction: withFigure(load.dutyFraction, {
          value: dutyFraction,
          from: 'metered',
          on,
          document,
          atC: given.data.designC,
        }),
      },
      help: `runs ${quantity(dutyFraction, 'fraction')} of the time, was ${quantity(load.dutyFraction.value, 'fraction')}`,
    })
  }
  if (calculator === 'start') {
    const given = start.input.safeParse(input)
    if (!given.success) return null
    const i = given.data
    return (load, volts) => {
      const figure: Start =
        i.method === 'inrush'
          ? { method: i.method, inrushA: { value: i.inrushA, from: 'metered', on } }
          : i.method === 'locked-rotor'
            ? {
                method: i.method,
                lockedRotorA: { value: i.lockedRotorA, from: 'nameplate', on },
                ...(i.softStartFraction < 1 && { softStartFraction: i.softStartFraction }),
              }
            : { method: i.method, multiple: { value: i.multiple, from: 'typical value' } }
      // amps of a nameplate belong to its voltage: they are not offered to a load on another
      if (i.method !== 'multiple' && Math.abs(i.volts - volts) > volts / 5) return null
      return { load: withStart(load, figure), help: `start by ${i.method.replace('-', ' ')}` }
    }
  }
  return null
}

const voltsOf = (circuit: Circuit) => (circuit.poles === 2 ? 240 : 120)

/**
 * Every way a calculation can go into this job: kept with it, and set on each load it says something of.
 * `on`: today, as YYYY-MM-DD, for the provenance.
 */
export function usesIn(job: Job, calculation: Calculation, on: string): Use[] {
  const known = job.calculations.some(c => c.id === calculation.id)
  const keep: Use = {
    label: known ? 'Put in place of the one kept' : 'Keep with the job',
    help: 'the inputs are kept; the answer and its working stand under Calculations and on the sheet',
    operation: { op: 'putCalculation', calculation },
  }
  const figures = figuresFor(calculation, on)
  if (!figures) return [keep]
  const onLoads = job.panels.flatMap(panel =>
    panel.circuits.flatMap(circuit =>
      circuit.loads.flatMap((load): Use[] => {
        const said = figures(load, voltsOf(circuit))
        const checked = said && parseWith(loadSchema, said.load)
        return said && checked?.ok
          ? [
              {
                label: `${load.name} on ${placeText(job, panel, circuit)} ${circuit.label}`.trim(),
                help: said.help,
                operation: { op: 'putLoad', circuitId: circuit.id, load: checked.value },
              },
            ]
          : []
      }),
    ),
  )
  const none = 'no load of this job takes the figure itself: it was read at another voltage'
  return [onLoads.length ? keep : { ...keep, help: none }, ...onLoads]
}
