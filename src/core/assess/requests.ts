import type { Photo, RequestRecord, RequestState } from '../ask/evidence'
import { wantPlate } from '../ask/want'
import type { Job } from '../job/schema'
import { inLanguage, type Language, type Sayer } from '../languages'
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

/** What is still to be seen or known: from the brief, the panels and the loads; then what a person added. In the language of who reads it. */
export function requestsOf(job: Job, needs: readonly CircuitNeed[], language: Language = 'en'): Request[] {
  const say = inLanguage(language)
  const derived = [
    ...panelRequests(job, say),
    ...existing(job, say),
    ...nameplates(job, needs, say),
    ...intervalData(job, say),
  ]
  const own = job.requests.flatMap((r): Derived[] =>
    r.own ? [{ key: r.key, title: r.own.title, why: r.own.why, how: say('ask.own'), wants: 'words' }] : [],
  )
  return [...derived, ...own].map(request => {
    const record = job.requests.find(r => r.key === request.key) ?? null
    const photos = job.photos.filter(p => p.request === request.key)
    const state = record?.state ?? (photos.length ? 'received' : 'to ask')
    return { ...request, state, record, photos }
  })
}

/** Something to be photographed, in the words of its kind. */
const photo = (say: Sayer, key: string, kind: string, of = 'none'): Derived => ({
  key: `photo:${key}`,
  title: say(`ask.${kind}.title`, { of }),
  why: say(`ask.${kind}.why`),
  how: say(`ask.${kind}.how`),
  wants: 'photo',
})

const panelRequests = ({ panels }: Job, say: Sayer): Derived[] => [
  ...panels.flatMap(panel =>
    ['panel', 'directory', 'sticker'].map(kind =>
      photo(say, `${kind}:${panel.id}`, kind, panels.length > 1 ? panel.name : 'none'),
    ),
  ),
  photo(say, 'wall', 'wall'),
]

/** What the brief says is there already. */
const existing = ({ brief }: Job, say: Sayer): Derived[] =>
  (['solar', 'generator', 'vehicle', 'station', 'inlet'] as const)
    .filter(kind => brief[kind] === 'yes')
    .map(kind => photo(say, kind, kind))

function nameplates(job: Job, needs: readonly CircuitNeed[], say: Sayer): Derived[] {
  const { brief } = job
  const plate = (key: string, what: string, why: string): Derived => ({
    key: `nameplate:${key}`,
    title: say('ask.plate.title', { what }),
    why,
    how: say('ask.plate.how'),
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
      ? [plate('largest-motor', brief.largestMotor, say('ask.plate.motor'))]
      : []),
    ...(brief.medical === 'yes'
      ? [plate('medical', brief.medicalWhat || say('ask.plate.medicalDevice'), say('ask.plate.medical'))]
      : []),
    ...(brief.heat === 'gas or oil burner' && !onLoads.some(l => l.load.needsBond)
      ? [plate('burner', say('ask.plate.boiler'), say('ask.plate.burner'))]
      : []),
    ...onWants.map(load => plate(wantPlate(load.id), load.name, whyPlate(load, say))),
    ...onLoads.map(({ n, load }) =>
      plate(`${n.circuit.id}:${load.id}`, `${load.name} (${n.position})`, whyPlate(load, say)),
    ),
  ]
}

const whyPlate = (load: Load, say: Sayer) =>
  load.nature === 'plain'
    ? say('ask.plate.typical')
    : say('ask.plate.start', {
        times: String(load.start?.method === 'multiple' ? load.start.multiple.value : assumedStartMultiple),
      })

/** A motor without a start figure, or a load of some size that nobody has read or metered. */
const lacksPlate = (load: Load) => {
  const { from } = meanProvenance(load)
  const guessed = load.runningW.from === 'typical value' || load.runningW.from === 'assumed'
  return (
    (load.nature !== 'plain' && !load.start) ||
    (guessed && from !== 'metered' && from !== 'commissioned' && load.runningW.value >= 100)
  )
}

const intervalData = ({ panels }: Job, say: Sayer): Derived[] =>
  panels.some(p => p.demandW)
    ? []
    : [
        {
          key: 'interval-data',
          title: say('ask.data.title'),
          why: say('ask.data.why'),
          how: say('ask.data.how'),
          wants: 'file',
        },
      ]
