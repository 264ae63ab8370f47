import * as z from 'zod'
import { type Brief, briefSchema, mostWants, wantSchema } from '../../ask/brief'
import { markSchema, photoSchema, requestRecordSchema } from '../../ask/evidence'
import { fault } from '../../outcome'
import { line } from '../../quantity'
import { assign, idSchema, operation, put } from './operation'
import { circuitName, onPhoto } from './reach'
import { given, wantName } from './wants'

/** What was asked on the first call, what is to be sent, and the photographs that came. */

export const askOperations = {
  answerBrief: operation(
    'answerBrief',
    {
      answers: briefSchema.partial(),
      clear: z
        .array(z.enum(Object.keys(briefSchema.omit({ wants: true }).shape)))
        .max(40)
        .optional(),
    },
    {
      apply:
        ({ answers, clear }) =>
        job => {
          assign<Brief>(job.brief, answers)
          for (const key of clear ?? []) Reflect.deleteProperty(job.brief, key)
        },
      describe: () => 'answered questions of the brief',
    },
  ),
  putWant: operation(
    'putWant',
    { want: wantSchema },
    {
      apply:
        ({ want }) =>
        job => {
          const { wants } = job.brief
          if (wants.length >= mostWants && !wants.some(w => w.id === want.id))
            return [
              fault('brief.wants', `are ${mostWants} already: put things that belong together into one`),
            ]
          job.brief.wants = put(wants, want)
        },
      describe: (before, { want }) =>
        before.brief.wants.some(w => w.id === want.id)
          ? `changed ${want.name} of what must live`
          : `asked for ${want.name}`,
    },
  ),
  removeWant: operation(
    'removeWant',
    { wantId: idSchema },
    {
      apply:
        ({ wantId }) =>
        job => {
          job.brief.wants = job.brief.wants.filter(w => w.id !== wantId)
        },
      describe: (before, { wantId }) => `took ${wantName(before, wantId)} off what must live`,
    },
  ),
  /** the circuits that carry a thing: the first of them takes its loads over; none, and it has them back */
  giveWant: operation(
    'giveWant',
    { wantId: idSchema, circuitIds: wantSchema.shape.circuitIds },
    {
      apply: ({ wantId, circuitIds }) => given(wantId, circuitIds),
      describe: (before, { wantId, circuitIds }) => {
        const [first] = circuitIds
        const name = wantName(before, wantId)
        return first === undefined
          ? `took ${name} off its circuit`
          : `${name} hangs on ${circuitName(before, first)}`
      },
    },
  ),
  putRequest: operation(
    'putRequest',
    { request: requestRecordSchema },
    {
      apply:
        ({ request }) =>
        job => {
          const at = job.requests.findIndex(r => r.key === request.key)
          if (at < 0) job.requests.push(request)
          else job.requests[at] = request
        },
      describe: (_, { request }) => `set a request to ${request.state}`,
    },
  ),
  removeRequest: operation(
    'removeRequest',
    { key: line(90, 1) },
    {
      apply:
        ({ key }) =>
        job => {
          job.requests = job.requests.filter(r => r.key !== key)
        },
      describe: () => 'took a request away',
    },
  ),
  addPhoto: operation(
    'addPhoto',
    { photo: photoSchema },
    {
      apply:
        ({ photo }) =>
        job => {
          if (job.photos.some(p => p.id === photo.id)) return
          job.photos.push(photo)
        },
      describe: (_, { photo }) => `added the photograph ${photo.name}`,
    },
  ),
  editPhoto: operation(
    'editPhoto',
    {
      photoId: z.uuid(),
      facts: photoSchema.pick({ name: true, turns: true, about: true }).partial(),
    },
    {
      apply: ({ photoId, facts }) => onPhoto(photoId, photo => assign(photo, facts)),
      describe: () => 'changed a photograph’s name, turn or place',
    },
  ),
  removePhoto: operation(
    'removePhoto',
    { photoId: z.uuid() },
    {
      apply:
        ({ photoId }) =>
        job => {
          job.photos = job.photos.filter(p => p.id !== photoId)
        },
      describe: (before, { photoId }) =>
        `removed the photograph ${before.photos.find(p => p.id === photoId)?.name ?? ''}`.trim(),
    },
  ),
  putMark: operation(
    'putMark',
    { photoId: z.uuid(), mark: markSchema },
    {
      apply: ({ photoId, mark }) =>
        onPhoto(photoId, photo => {
          const at = photo.marks.findIndex(m => m.id === mark.id)
          if (at < 0) photo.marks.push(mark)
          else photo.marks[at] = mark
        }),
      describe: () => 'marked a photograph',
    },
  ),
  removeMark: operation(
    'removeMark',
    { photoId: z.uuid(), markId: idSchema },
    {
      apply: ({ photoId, markId }) =>
        onPhoto(photoId, photo => {
          photo.marks = photo.marks.filter(m => m.id !== markId)
        }),
      describe: () => 'took a mark off a photograph',
    },
  ),
}
