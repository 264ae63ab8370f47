import type { Evaluated } from '../assess/evaluated'
import { factsOfChemistry } from '../equipment/chemistries'
import { arraysWorked, chargeW, overlaps, recordLowOf } from '../source/inputs'
import { shortName } from '../source/short-name'
import { chemistryOf } from '../source/store'
import { plural, quantity } from '../units/format'
import type { Said } from './finding'

/** Cold, sun and fuel. */

const at = (field: string) => ({ view: 'source', field }) as const

export function energyCold({ job }: Evaluated): Said[] {
  const { source } = job
  const coldestC = source?.stands?.coldestC
  if (!source || coldestC === undefined) return []
  return source.units.flatMap((unit): Said[] => {
    const facts = unit.bank?.equipment ?? unit.equipment
    const chemistry = chemistryOf(unit)
    const usual = factsOfChemistry(chemistry)
    const chargeAbove = ('chargeAboveC' in facts ? facts.chargeAboveC : undefined) ?? usual?.chargeAboveC
    const worksAbove = 'dischargeAboveC' in facts ? facts.dischargeAboveC : undefined
    const charged = Boolean(source.generator || source.arrays?.length || source.charging)
    const noCharge = chargeAbove !== undefined && coldestC < chargeAbove
    const noWork = worksAbove !== undefined && coldestC < worksAbove
    if (!noCharge && !noWork) return []
    const grave = noCharge && charged ? usual?.chargedCold : undefined
    return [
      {
        id: 'energy.cold',
        severity: grave ? 'stop' : 'mind',
        sentence: `${quantity(coldestC, 'C')} where the ${facts.name} stands: it ${noCharge ? `charges only above ${quantity(chargeAbove, 'C')}` : ''}${noCharge && noWork ? ' and ' : ''}${noWork ? `works only above ${quantity(worksAbove, 'C')}` : ''}.`,
        why: grave ? grave : 'In the cold it gives less, or stops, on the night it is wanted.',
        remedy:
          'Put it in a heated place, give it a heated enclosure, or bring it indoors before it is charged.',
        target: at('stands'),
        fixes: [],
      },
    ]
  })
}

export function solarStrings({ job }: Evaluated): Said[] {
  const low = recordLowOf(job)
  const asks: Said[] =
    low.said || !job.source?.arrays?.length
      ? []
      : [
          {
            id: 'solar.record-cold',
            severity: 'ask',
            sentence: `How cold it has ever been at the place is not said: the strings are judged at ${quantity(low.C, 'C')}, an assumption.`,
            why: 'Volts rise as modules cool. One clear morning at the record low destroys an input that a milder guess let pass.',
            remedy:
              'Ask the weather service for the record low of the place, or read a weather file in; where the battery stands does not matter here.',
            article: 'NEC 690.7(A)',
            target: { view: 'ask', field: 'recordLowC' },
            fixes: [],
          },
        ]
  const strings = arraysWorked(job).flatMap(({ array, unit, worked, modeW }): Said[] => {
    const { result, working } = worked
    const name = `${plural(array.series, array.module.name, array.module.name)} in series on the ${unit.equipment.name}`
    const port = 'solar' in unit.equipment ? unit.equipment.solar : undefined
    const target = at(`array-${array.id}`)
    const fewer = Math.floor((array.series * (port?.maxV ?? 0)) / result.coldVocV)
    const found: Said[] = []
    if (result.faults.includes('over-voltage'))
      found.push({
        id: 'solar.over-voltage',
        severity: 'stop',
        sentence: `${name}: ${quantity(result.coldVocV, 'V')} at ${quantity(low.C, 'C')}${low.said ? (low.from === 'weather file' ? ' (coldest hour of the weather file)' : '') : ' (assumed: the record low is not said)'}, above the ${quantity(port?.maxV ?? 0, 'V')} of its input.`,
        why: 'On the coldest clear morning the input is destroyed, and no warranty covers it.',
        remedy: 'Fewer modules in series, more strings in parallel.',
        target,
        working,
        fixes:
          fewer >= 1
            ? [
                {
                  label: `Plan ${fewer} in series`,
                  operations: [{ op: 'putArray', array: { ...array, series: fewer } }],
                },
              ]
            : [],
      })
    if (result.faults.includes('under-voltage'))
      found.push({
        id: 'solar.under-voltage',
        severity: 'fix',
        sentence: `${name}: ${quantity(result.hotVmpV, 'V')} with hot cells, below the ${quantity(port?.minV ?? 0, 'V')} at which its input begins.`,
        why: 'On a hot day it stops charging in full sun.',
        remedy: 'More modules in series, as far as the cold allows.',
        target,
        working,
        fixes: [],
      })
    const clipped = 1 - Math.min(result.inputW, modeW ?? Infinity) / result.arrayW
    if (clipped > 0.1)
      found.push({
        id: 'solar.clipped',
        severity: 'mind',
        sentence: `${name}: ${quantity(result.arrayW, 'W')} of modules, ${quantity(Math.min(result.inputW, modeW ?? Infinity), 'W')} taken${modeW !== null && modeW < result.inputW ? ` in the charge mode ${job.source?.charging?.mode}, which throttles solar` : ''}.`,
        why: 'A part of what is paid for is never harvested in full sun.',
        remedy:
          modeW !== null && modeW < result.inputW
            ? 'Take another charge mode while the sun is wanted.'
            : 'Fewer modules, a second input, or accept it: on dull days the input is not reached.',
        target,
        working,
        fixes: [],
      })
    return found
  })
  return [...asks, ...strings]
}

export function generatorTooSmall({ job, figures }: Evaluated): Said[] {
  const generator = job.source?.generator
  const takesW = chargeW(job)
  if (!generator || takesW === undefined) return []
  const houseW = generator.chargesOnly ? 0 : figures.meanLoadW
  const needW = takesW + houseW
  const { name, continuousW } = generator.equipment
  if (needW <= continuousW) return []
  return [
    {
      id: 'generator.too-small',
      severity: 'mind',
      sentence: `Charging takes ${quantity(takesW, 'W')}${houseW > 0 ? ` and the house ${quantity(houseW, 'W')} on average` : ''}; the ${name} gives ${quantity(continuousW, 'W')}.`,
      why: 'It is overloaded and stalls, or the charger steps back and the tank lasts shorter than reckoned.',
      remedy: 'Set a slower charge mode, or leave large loads off while it runs.',
      target: at('generator'),
      fixes: slower(job, continuousW - houseW),
    },
  ]
}

function slower(job: Evaluated['job'], leftW: number): Said['fixes'] {
  const [unit] = job.source?.units ?? []
  const modes = unit?.equipment.kind === 'station' ? unit.equipment.chargeModes : undefined
  const count = job.source?.units.length ?? 1
  const fitting = modes?.filter(m => m.acW * count <= leftW).sort((a, b) => b.acW - a.acW)[0]
  return fitting
    ? [
        {
          label: `Set the charge mode ${fitting.name}`,
          operations: [
            {
              op: 'setSource',
              facts: {
                charging: { from: job.source?.charging?.from ?? 'not from the panel', mode: fitting.name },
              },
            },
          ],
        },
      ]
    : []
}

export function generatorIndoors({ job }: Evaluated): Said[] {
  const generator = job.source?.generator
  if (generator?.where !== 'indoors') return []
  return [
    {
      id: 'generator.indoors',
      severity: 'stop',
      sentence: `The ${generator.equipment.name} is planned to run indoors.`,
      why: 'Carbon monoxide kills without warning, through walls and attics too.',
      remedy: 'Outdoors only, far from doors, windows and vents, with the exhaust away from the house.',
      target: at('generator'),
      fixes: [
        {
          label: 'Plan it outdoors',
          operations: [{ op: 'putGenerator', generator: { ...generator, where: 'outdoors' } }],
        },
      ],
    },
  ]
}

const usualQuiet = { fromH: 22, toH: 7 }

export function generatorQuiet({ job }: Evaluated): Said[] {
  const generator = job.source?.generator
  const { noise } = job.brief
  if (!generator) return []
  const quiet =
    generator.quietFromH !== undefined && generator.quietToH !== undefined
      ? { fromH: generator.quietFromH, toH: generator.quietToH }
      : noise === 'quiet at night'
        ? usualQuiet
        : null
  const runs = { fromH: generator.fromH ?? 0, toH: generator.toH ?? 24 }
  const disturbs = noise === 'none' || (quiet !== null && overlaps(runs, quiet))
  if (!disturbs) return []
  const working = { fromH: 9, toH: 17 }
  // the working day where it is not quiet, else all that the quiet hours leave
  const day = quiet && overlaps(working, quiet) ? { fromH: quiet.toH, toH: quiet.fromH } : working
  return [
    {
      id: 'generator.quiet',
      severity: 'mind',
      sentence:
        noise === 'none'
          ? `The ${generator.equipment.name} runs, and no noise at all was asked for.`
          : `The ${generator.equipment.name} runs from ${runs.fromH}:00 to ${runs.toH}:00, into the quiet hours from ${quiet?.fromH}:00 to ${quiet?.toH}:00.`,
      why: 'Neighbours complain, and it is switched off when it is needed.',
      remedy: 'Run it by day and store: give it hours outside the quiet ones.',
      target: at('generator'),
      fixes:
        noise === 'none' || !quiet
          ? []
          : [
              {
                label: `Run it from ${day.fromH}:00 to ${day.toH}:00`,
                operations: [{ op: 'putGenerator', generator: { ...generator, ...day } }],
              },
            ],
    },
  ]
}

const ranks: readonly (string | undefined)[] = ['indoors', 'damp', 'wet']

export function mountWet({ job }: Evaluated): Said[] {
  const { source, hookup } = job
  const panel = job.panels.find(p => p.id === hookup.panelId) ?? job.panels[0]
  const rank = (place: string | undefined) => ranks.indexOf(place)
  const devices = [hookup.switch, hookup.managed].filter(d => d !== undefined)
  const placed = [
    ...(source?.units ?? [])
      .flatMap(u => [u.equipment, ...(u.bank ? [u.bank.equipment] : [])])
      .map(item => ({
        item,
        place: source?.stands?.exposure,
        where: 'where the source stands',
        target: at('stands'),
      })),
    ...devices.map(item => ({
      item,
      place: panel?.exposure,
      where: `beside ${panel?.name ?? 'the panel'}`,
      target: { view: 'hook-up', field: 'method' } as const,
    })),
  ]
  return placed.flatMap(({ item, place, where, target }): Said[] => {
    const rated = 'ratedFor' in item ? item.ratedFor : undefined
    if (rank(rated) < 0 || rank(place) <= rank(rated)) return []
    return [
      {
        id: 'mount.wet',
        severity: 'fix',
        sentence: `The ${item.name} is rated for ${rated === 'indoors' ? 'dry places indoors' : `${rated} places`}; it is ${place} ${where}.`,
        why: 'Water finds the terminals: corrosion first, then a shock or a fire.',
        remedy: 'Take an enclosure or a unit listed for the place, or put it somewhere dry.',
        target,
        fixes: [],
      },
    ]
  })
}

export function sourceStoresNothing({ job, figures }: Evaluated): Said[] {
  if (!job.source || figures.run) return []
  return [
    {
      id: 'store.none',
      severity: 'mind',
      sentence: `The ${shortName(job.source)} stores nothing: it runs only while it is fuelled.`,
      why: 'Without a battery every hour of the outage is an hour of engine.',
      remedy: 'Let it charge a station or bank for some hours a day instead.',
      target: at('units'),
      fixes: [],
    },
  ]
}
