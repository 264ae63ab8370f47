import * as z from 'zod'
import type { About, Photo, RequestRecord } from '../ask/evidence'
import type { Operation } from '../job/operations'
import type { Job } from '../job/schema'
import { inLanguage, type Language } from '../languages'
import { plateSchema } from '../loads/nameplate'
import { plateWords } from '../loads/plate'
import { line } from '../quantity'
import { circuitNeeds } from './needs'
import { type Request, requestsOf } from './requests'

/** What someone answers to a request without a picture: a nameplate, a few words, or that they do not know. */
export const answerSchema = z
  .strictObject({
    key: line(90, 1),
    plate: plateSchema.optional(),
    text: line(500).optional(),
    unknown: z.literal(true).optional(),
  })
  .refine(
    a => a.unknown || a.text || (a.plate && Object.keys(a.plate).length),
    'is empty: fill in at least one field, or choose “I don’t know”',
  )
export type Answered = z.infer<typeof answerSchema>

/** A request as its receiver sees it: what, why and how, and what came in; nothing else of the job. */
export interface AskedOfCustomer {
  key: string
  title: string
  why: string
  how: string
  wants: Request['wants']
  /** `open`; `here`: something came; `enough`: nothing more is needed */
  state: 'open' | 'here' | 'enough'
  photos: { id: string; name: string }[]
  said: string | null
  note: string | null
}

/** What a link shows: the requests that were not refused, open ones first. */
export function askedOfCustomer(job: Job, language: Language = 'en'): AskedOfCustomer[] {
  const order = { open: 0, here: 1, enough: 2 }
  return requestsOf(job, circuitNeeds(job), language)
    .filter(r => r.state !== 'refused')
    .map(r => ({
      key: r.key,
      title: r.title,
      why: r.why,
      how: r.how,
      wants: r.wants,
      state:
        r.state === 'good enough'
          ? ('enough' as const)
          : r.state === 'received'
            ? ('here' as const)
            : ('open' as const),
      photos: r.photos.map(p => ({ id: p.id, name: p.name })),
      said: r.record?.answer ? saidText(r.record.answer, language) : null,
      note: r.record?.note ?? null,
    }))
    .sort((a, b) => order[a.state] - order[b.state])
}

/** An answer in one line. */
export function saidText(
  { unknown, plate, text, file }: NonNullable<RequestRecord['answer']>,
  language: Language = 'en',
): string {
  if (unknown) return inLanguage(language)('ask.doesNotKnow')
  const figures = plate ? plateWords(plate) : []
  return [...figures, plate?.text, text, file && `file ${file.name}`].filter(Boolean).join(', ')
}

/** What a request's photograph shows. */
export function aboutRequest(job: Job, key: string): About {
  const [kind, what = '', id = ''] = key.split(':')
  if (kind === 'photo' && what === 'wall') return { kind: 'wall' }
  if (kind === 'photo' && job.panels.some(p => p.id === id)) return { kind: 'panel', panelId: id }
  const circuit = job.panels.flatMap(p => p.circuits).find(c => c.id === what)
  if (kind === 'nameplate' && circuit?.loads.some(l => l.id === id))
    return { kind: 'load', circuitId: circuit.id, loadId: id }
  return { kind: 'other' }
}

interface Sender {
  by: string
  on: string
}

const found = (job: Job, key: string) => requestsOf(job, circuitNeeds(job)).find(r => r.key === key)

/** Takes in a photograph for a request; empty when the job no longer asks for it. */
export function photoSent(
  job: Job,
  key: string,
  picture: Pick<Photo, 'id' | 'width' | 'height'>,
  { by, on }: Sender,
): Operation[] {
  const request = found(job, key)
  if (!request) return []
  const n = request.photos.length + 1
  const name = `${request.title.slice(0, 70)}${n > 1 ? ` (${n})` : ''}`
  return [
    {
      op: 'addPhoto',
      photo: { ...picture, name, by, on, turns: 0, about: aboutRequest(job, key), request: key, marks: [] },
    },
    received(request, {}),
  ]
}

/** Takes in an answer for a request; empty when the job no longer asks for it. */
export function answerSent(job: Job, { key, ...answer }: Answered, { by, on }: Sender): Operation[] {
  const request = found(job, key)
  return request ? [received(request, { answer: { by, on, ...answer } })] : []
}

/** Takes in a file for a request; empty when the job no longer asks for it. */
export function fileSent(
  job: Job,
  key: string,
  file: { id: string; name: string; bytes: number },
  { by, on }: Sender,
): Operation[] {
  const request = found(job, key)
  return request ? [received(request, { answer: { by, on, file } })] : []
}

const received = ({ key, record }: Request, more: Partial<RequestRecord>): Operation => ({
  op: 'putRequest',
  request: { ...record, key, ...more, state: 'received' },
})
