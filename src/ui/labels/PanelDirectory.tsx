import { deference } from '@/core/deference'
import { feederOf, placeText } from '@/core/job/panels'
import type { Job } from '@/core/job/schema'
import { type Circuit, isKnown, type Panel } from '@/core/panel/schema'
import { type DirectoryPlace, directoryOf } from '@/core/work/directory'
import styles from './Labels.module.css'
import { LegMark } from './LegMark'

interface Props {
  job: Job
  panel: Panel
  /** which picture of the house it is, in words */
  house: string
  /** signs of what is planned, by circuit */
  marks?: ReadonlyMap<string, string>
  firm: string
  revision: number
  printedOn: string
}

/** The directory for the inside of the panel's door. */
export function PanelDirectory({ job, panel, house, marks, firm, revision, printedOn }: Props) {
  const feeder = feederOf(job, panel)
  const facts = [
    panel.mainA === undefined ? 'main lugs only' : `main ${panel.mainA} A`,
    ...(panel.busA === undefined ? [] : [`bus ${panel.busA} A`]),
    feeder
      ? `fed from ${feeder.panel.name}, ${placeText(job, feeder.panel, feeder.circuit)}`
      : panel.supply === 'service'
        ? 'service panel'
        : 'fed from another panel',
    ...(panel.where ? [panel.where] : []),
  ]
  const unknown = panel.circuits.filter(c => isDoubtful(c, marks)).length
  return (
    <article className={styles.directory} data-dense={panel.spaces > 30}>
      <header>
        <h1>
          {panel.mark && `${panel.mark} · `}
          {panel.name}
        </h1>
        <p>
          {job.title}
          <br />
          {facts.join(', ')}
        </p>
      </header>
      <table>
        <thead>
          <tr>
            <th scope="col">No.</th>
            <th scope="col">Circuit</th>
            <th scope="col">A</th>
            <th scope="col">Leg</th>
            <th scope="col">A</th>
            <th scope="col">Circuit</th>
            <th scope="col">No.</th>
          </tr>
        </thead>
        <tbody>
          {directoryOf(job, panel).map(([left, right]) => (
            <tr key={left.space}>
              <th scope="row">{left.name}</th>
              <Circuits place={left} marks={marks} />
              <td className={styles.amps}>{amps(left)}</td>
              <td className={styles.legCell}>
                <LegMark leg={left.leg} />
              </td>
              <td className={styles.amps}>{amps(right)}</td>
              <Circuits place={right} marks={marks} />
              <th scope="row">{right.name}</th>
            </tr>
          ))}
        </tbody>
      </table>
      <p>
        ■ stays on in an outage. {unknown > 0 && `? no one has seen it die for certain (${unknown}). `}A and
        B: upper and lower half of a tandem.
        {marks?.size ? ' ↷ moved, ⟳ exchanged, + new, − taken out: planned.' : ''}
      </p>
      <footer>
        {house}. {firm}, revision {revision}, {printedOn}. NEC {job.edition}, 408.4(A). {deference}
      </footer>
    </article>
  )
}

/** Nobody has seen it die for certain; what is only planned nobody can have. */
const isDoubtful = (circuit: Circuit, marks: Props['marks']) =>
  !isKnown(circuit) && !marks?.get(circuit.id)?.includes('+')

function Circuits({ place, marks }: { place: DirectoryPlace; marks: Props['marks'] }) {
  return (
    <td className={styles.circuits}>
      {!place.entries.length && <i>{place.unusable ? 'not usable' : 'free'}</i>}
      {place.entries.map(({ need: { circuit }, continued }) => (
        <div key={circuit.id}>
          {!continued && marks?.has(circuit.id) && <b>{marks.get(circuit.id)} </b>}
          {circuit.picked && '■ '}
          {circuit.half && <b>{circuit.half.toUpperCase()} </b>}
          {continued
            ? `second pole of ${circuit.label || 'the breaker above'}`
            : circuit.label || 'unlabelled'}
          {isDoubtful(circuit, marks) && !continued && ' ?'}
        </div>
      ))}
    </td>
  )
}

const amps = (place: DirectoryPlace) =>
  place.entries.map(({ need: { circuit }, continued }) => (
    <div key={circuit.id}>{continued ? '' : circuit.breakerA}</div>
  ))
