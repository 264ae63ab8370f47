import type { Photo, RequestRecord, RequestState } from '../ask/evidence'
import { wantPlate } from '../ask/want'
import type { Job } from '../job/schema'
import { assumedStartMultiple, type Load, meanProvenance } from '../loads/load'
import type { CircuitNeed } from './needs'

/** Something the customer, or whoever drives out, is to send. Everything but its state is derived from the job. */
export interface Request {
  key: string
  title: string
  /** why it is needed, in plain words */
  why: string
  /** how to take or find it */
  how: string
  wants: 'photo' | 'nameplate' | 'file' | 'words'
  state: RequestState
  record: RequestRecord | null
  photos: Photo[]
}

type Derived = Pick<Request, 'key' | 'title' | 'why' | 'how' | 'wants'>

/** A request still waits for something. */
export const isWaiting = ({ state }: Request) => state === 'to ask' || state === 'asked'

/** What is still to be seen or known: from the brief, the panels and the loads; then what a person added. */
export function requestsOf(job: Job, needs: readonly CircuitNeed[]): Request[] {
  const derived = [...panelRequests(job), ...existing(job), ...nameplates(job, needs), ...intervalData(job)]
  const own = job.requests.flatMap((r): Derived[] =>
    r.own
      ? [
          {
            key: r.key,
            title: r.own.title,
            why: r.own.why,
            how: 'A photograph or a few words.',
            wants: 'words',
          },
        ]
      : [],
  )
  return [...derived, ...own].map(request => {
    const record = job.requests.find(r => r.key === request.key) ?? null
    const photos = job.photos.filter(p => p.request === request.key)
    const state = record?.state ?? (photos.length ? 'received' : 'to ask')
    return { ...request, state, record, photos }
  })
}

function panelRequests({ panels }: Job): Derived[] {
  return [
    ...panels.flatMap((panel): Derived[] => {
      const of = panels.length > 1 ? ` of ${panel.name}` : ''
      return [
        {
          key: `photo:panel:${panel.id}`,
          title: `The breaker panel${of}, door open`,
          why: 'To count breakers and free spaces before anything is ordered.',
          how: 'Stand back until the whole panel is in the picture. Do not take the cover off.',
          wants: 'photo',
        },
        {
          key: `photo:directory:${panel.id}`,
          title: `The list on the inside of the door${of}`,
          why: 'What each breaker is said to feed, even if it is half blank.',
          how: 'Close enough that the writing can be read.',
          wants: 'photo',
        },
        {
          key: `photo:sticker:${panel.id}`,
          title: `The printed label inside the panel${of}`,
          why: 'It lists the breakers and accessories that may be used in this panel.',
          how: 'Usually on the inside of the door or the side wall. Several pictures are fine.',
          wants: 'photo',
        },
      ]
    }),
    {
      key: 'photo:wall',
      title: 'The wall where equipment could go',
      why: 'To see the clear space, and how far it is to the panel.',
      how: 'Show floor and ceiling, and the panel if it is near.',
      wants: 'photo',
    },
  ]
}

/** What the brief says is there already. */
function existing({ brief }: Job): Derived[] {
  const photo = (there: boolean, key: string, title: string, why: string, how: string): Derived[] =>
    there ? [{ key: `photo:${key}`, title, why, how, wants: 'photo' }] : []
  return [
    ...photo(
      brief.solar === 'yes',
      'solar',
      'The solar inverter and its label',
      'It has to stay off while a battery feeds the panel, unless the battery can take it.',
      'The label with volts and amps, and the breaker it goes to.',
    ),
    ...photo(
      brief.generator === 'yes',
      'generator',
      'The generator’s label and outlets',
      'Its watts, and whether its neutral is bonded.',
      'The label, and the panel with the outlets.',
    ),
    ...photo(
      brief.vehicle === 'yes',
      'vehicle',
      'The vehicle’s power outlet and its label',
      'How many watts it gives, and at which voltage.',
      'The outlet, and any label or screen that names its watts.',
    ),
    ...photo(
      brief.station === 'yes',
      'station',
      'The power station’s label and outlets',
      'Its outlets decide what can be connected.',
      'The label with watts and watt-hours, and all of its outlets.',
    ),
    ...photo(
      brief.inlet === 'yes',
      'inlet',
      'The inlet or transfer switch',
      'It may be used again, or be a danger as it is.',
      'The inlet’s face, its label, and the breaker it is wired to.',
    ),
  ]
}

function nameplates(job: Job, needs: readonly CircuitNeed[]): Derived[] {
  const { brief } = job
  const plate = (key: string, what: string, why: string): Derived => ({
    key: `nameplate:${key}`,
    title: `Nameplate: ${what}`,
    why,
    how: 'A picture of the plate, or type what it says: volts, amps, watts, hp, LRA.',
    wants: 'nameplate',
  })
  const onLoads = needs
    .filter(n => n.circuit.picked)
    .flatMap(n => n.circuit.loads.filter(lacksPlate).map(load => ({ n, load })))
  const onWants = brief.wants.flatMap(w =>
    w.circuitIds.length ? [] : (w.loads ?? []).flatMap(({ load }) => (lacksPlate(load) ? [load] : [])),
  )
  const carried = (kind: string) => brief.wants.some(w => w.circuitIds.length && w.name === kind)
  return [
    ...(brief.largestMotor && brief.lockedRotorA === undefined && !carried(brief.largestMotor)
      ? [
          plate(
            'largest-motor',
            brief.largestMotor,
            'Its locked-rotor amps decide which equipment can start it.',
          ),
        ]
      : []),
    ...(brief.medical === 'yes'
      ? [
          plate(
            'medical',
            brief.medicalWhat || 'medical device',
            'It comes first: its watts and its own battery.',
          ),
        ]
      : []),
    ...(brief.heat === 'gas or oil burner' && !onLoads.some(l => l.load.needsBond)
      ? [plate('burner', 'boiler or furnace', 'Its watts, and whether it refuses a floating source.')]
      : []),
    ...onWants.map(load => plate(wantPlate(load.id), load.name, whyPlate(load))),
    ...onLoads.map(({ n, load }) =>
      plate(`${n.circuit.id}:${load.id}`, `${load.name} (${n.position})`, whyPlate(load)),
    ),
  ]
}

const whyPlate = (load: Load) =>
  load.nature === 'plain'
    ? 'Its watts are only a typical value so far.'
    : `Its start is taken as ${load.start?.method === 'multiple' ? load.start.multiple.value : assumedStartMultiple} times running until the plate is read.`

/** A motor without a start figure, or a load of some size that nobody has read or metered. */
const lacksPlate = (load: Load) => {
  const { from } = meanProvenance(load)
  const guessed = load.runningW.from === 'typical value' || load.runningW.from === 'assumed'
  return (
    (load.nature !== 'plain' && !load.start) ||
    (guessed && from !== 'metered' && from !== 'commissioned' && load.runningW.value >= 100)
  )
}

function intervalData({ panels }: Job): Derived[] {
  if (panels.some(p => p.demandW)) return []
  return [
    {
      key: 'interval-data',
      title: 'A year of hourly use from the utility',
      why: 'It shows the highest demand of the year and what an ordinary day takes.',
      how: 'On the utility’s site, look for “Green Button” or “download my data”, and send the file as it comes.',
      wants: 'file',
    },
  ]
}
