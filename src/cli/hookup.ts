import { compareMethods } from '@/core/assess/compare-methods'
import { circuitNeeds, named } from '@/core/assess/needs'
import { positionProblem, solvePositions } from '@/core/assess/positions'
import { dayIn } from '@/core/day'
import type { Equipment } from '@/core/equipment'
import { readEquipmentCsv, readEquipmentJson } from '@/core/formats/equipment-csv'
import { oneLineSvg } from '@/core/formats/one-line-svg'
import { loadSolver } from '@/core/hookup/solver'
import { houses, standing } from '@/core/job/as-planned'
import { badInput, complain, complainOf, print, readText } from './io'
import { readJobFile } from './job'

/** Every method on this house, the recommended one first; devices and prices from a catalogue file, where one is given. */
export async function hookupsOfFile(file: string, catalogueFile: string | undefined): Promise<number> {
  const job = await readJobFile('hookups', file)
  if (!job) return badInput
  const catalogue = catalogueFile === undefined ? [] : await catalogueOf('hookups', catalogueFile)
  if (!catalogue) return badInput
  print(compareMethods(job, catalogue))
  return 0
}

/** The equipment of a file, CSV or JSON; null after complaining. */
export async function catalogueOf(command: string, file: string): Promise<Equipment[] | null> {
  const read = await readText(file, 1_000_000)
  if ('problem' in read) {
    complain(`${command}: ${file}: ${read.problem}`)
    return null
  }
  const items = read.text.trimStart().startsWith('[')
    ? readEquipmentJson(read.text)
    : readEquipmentCsv(read.text)
  if (items.ok) return items.value
  complainOf(command, items.faults)
  return null
}

/** Which circuit on which position of the switch of a job, with the price of each pin. */
export async function positionsOfFile(file: string): Promise<number> {
  const job = await readJobFile('positions', file)
  if (!job) return badInput
  const needs = circuitNeeds(job)
  const problem = positionProblem({ job, needs })
  if (!problem)
    return complain(
      `positions: hookup.switch: is missing, or there is no source: give the job a switch and a source`,
    )
  const plan = solvePositions(problem, await loadSolver())
  const name = (id: string) => {
    const need = needs.find(n => n.circuit.id === id)
    return need ? named(need) : id
  }
  print({
    ...plan,
    positions: plan.positions.map(p => ({ ...p, circuit: name(p.circuitId) })),
    unplaced: plan.unplaced.map(name),
  })
  return 0
}

/** The one-line diagram of a job, as SVG. */
export async function oneLineOfFile(file: string, asked = 'planned'): Promise<number> {
  const house = houses.find(h => h === asked)
  if (!house) return complain(`one-line: --house is found or planned, not ${asked}`)
  const job = await readJobFile('one-line', file)
  if (!job) return badInput
  const on = dayIn(Intl.DateTimeFormat().resolvedOptions().timeZone, new Date())
  process.stdout.write(
    `<?xml version="1.0" encoding="UTF-8"?>\n${oneLineSvg(house === 'found' ? standing(job) : job, { firm: 'from a file', revision: 0, on })}`,
  )
  return 0
}
