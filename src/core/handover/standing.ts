import { type Evaluation, evaluate } from '../assess/evaluate'
import { circuitNeeds, named } from '../assess/needs'
import { cardOf } from '../card/card'
import { cardIn, cardText } from '../card/words'
import { asPlanned } from '../job/as-planned'
import type { Job } from '../job/schema'
import type { StandingThen, Visit } from '../job/visits'
import type { UnitOfMeasure } from '../working'

const longestLine = 780

/** Every breaker as directory and label have it: its place, its name, its rating, whether it lives on the source. */
function directoryLines(found: Job): string[] {
  return circuitNeeds(asPlanned(found).job).map(n =>
    `${named(n)}, ${n.circuit.breakerA} A${n.served ? ', lives on the source' : ''}`.slice(0, 240),
  )
}

const cardLines = (job: Job): string[] => {
  const card = cardOf(job)
  return card.ok
    ? cardText(cardIn('en', card.value))
        .map(l => l.slice(0, longestLine))
        .slice(0, 300)
    : []
}

/** What stands of a job, as far as it is printed or weighed. */
export function standingOf(job: Job, revision: number, evaluation: Evaluation = evaluate(job)): StandingThen {
  return {
    revision,
    figures: [
      ...evaluation.balance.map(l => ({ id: l.id, value: l.have })),
      ...evaluation.balance.map(l => ({ id: `need:${l.id}`, value: l.need })),
      { id: 'served', value: circuitNeeds(asPlanned(job).job).filter(n => n.served).length },
    ].filter((f, n, all) => all.findIndex(o => o.id === f.id) === n),
    directory: directoryLines(job),
    card: cardLines(job),
  }
}

export interface FigureMoved {
  id: string
  label: string
  unit: UnitOfMeasure
  before: number | null
  after: number | null
}

/** What a visit changed: figures before and after, and of what is printed the lines that came and went. */
export interface Told {
  figures: FigureMoved[]
  directory: { came: string[]; went: string[] }
  card: { came: string[]; went: string[] }
}

const lines = (before: readonly string[], after: readonly string[]) => ({
  came: [...new Set(after)].filter(l => !before.includes(l)),
  went: [...new Set(before)].filter(l => !after.includes(l)),
})

/** The house now against how it stood when the visit was opened. */
export function visitTold(
  job: Job,
  { before }: Pick<Visit, 'before'>,
  evaluation: Evaluation = evaluate(job),
): Told {
  const now = standingOf(job, before.revision, evaluation)
  const at = (list: StandingThen['figures'], id: string) => list.find(f => f.id === id)?.value ?? null
  const differ = (a: number | null, b: number | null) =>
    a === null || b === null ? a !== b : Math.abs(a - b) > 1e-6 * Math.max(1, Math.abs(a))
  return {
    figures: evaluation.balance.flatMap(l =>
      [
        { id: `need:${l.id}`, label: `${l.label}, needed`, unit: l.unit },
        { id: l.id, label: `${l.label}, there`, unit: l.unit },
      ].flatMap(({ id, ...said }) => {
        const [was, is] = [at(before.figures, id), at(now.figures, id)]
        return differ(was, is) ? [{ id, ...said, before: was, after: is }] : []
      }),
    ),
    directory: lines(before.directory, now.directory),
    card: lines(
      before.card.filter(l => l.trim()),
      now.card.filter(l => l.trim()),
    ),
  }
}
