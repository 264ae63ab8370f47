import type { Draft } from 'immer'
import {
  habitsSchema,
  routeChoiceSchema,
  type WiringChoices,
  wallBoxSchema,
  wireChoiceSchema,
} from '../../hookup/wiring-choices'
import { fault } from '../../outcome'
import { line, within } from '../../quantity'
import { figure } from '../../units/format'
import type { Job } from '../schema'
import { assign, clearing, operation, words } from './operation'

/** What is decided of the wiring by hand. What nobody decides any more leaves the document as it was before. */

const wiringOf = (job: Draft<Job>): WiringChoices => {
  job.wiring ??= {}
  return job.wiring
}

function swept(job: Draft<Job>) {
  const { wiring } = job
  if (!wiring) return
  if (wiring.habits && !Object.keys(wiring.habits).length) delete wiring.habits
  if (wiring.routes && !wiring.routes.length) delete wiring.routes
  if (wiring.wires && !wiring.wires.length) delete wiring.wires
  if (wiring.joints && !wiring.joints.length) delete wiring.joints
  if (wiring.sketch && !wiring.sketch.boxes.length && wiring.sketch.photoId === undefined)
    delete wiring.sketch
  if (!Object.keys(wiring).length) delete job.wiring
}

const habitKeys = ['feederMetal', 'raceway', 'connectors', 'oneSizeUp', 'growth', 'slackFt'] as const
const routeKeys = ['lengthFt', 'bendsDeg', 'conduit', 'tradeSize', 'ambientC', 'wet', 'through'] as const
const wireKey = wireChoiceSchema.pick({ route: true, mark: true }).shape

export const wiringOperations = {
  setHabits: operation(
    'setHabits',
    { facts: habitsSchema.partial(), clear: clearing(habitKeys) },
    {
      apply:
        ({ facts, clear }) =>
        job => {
          const wiring = wiringOf(job)
          wiring.habits = { ...wiring.habits }
          assign(wiring.habits, facts)
          for (const key of clear ?? []) delete wiring.habits[key]
          swept(job)
        },
      describe: (_, { facts, clear }) =>
        `changed how it is wired: ${[...Object.keys(facts), ...(clear ?? [])].map(words).join(', ')}`,
    },
  ),
  setRoute: operation(
    'setRoute',
    { facts: routeChoiceSchema, clear: clearing(routeKeys) },
    {
      apply:
        ({ facts, clear }) =>
        job => {
          const wiring = wiringOf(job)
          const was = wiring.routes?.find(r => r.id === facts.id) ?? { id: facts.id }
          const next = { ...was, ...facts }
          for (const key of clear ?? []) delete next[key]
          const others = (wiring.routes ?? []).filter(r => r.id !== facts.id)
          wiring.routes = Object.keys(next).length > 1 ? [...others, next] : others
          swept(job)
        },
      describe: (_, { facts: { id, ...facts }, clear }) =>
        `changed the route ${id}: ${[...Object.keys(facts), ...(clear ?? [])].map(words).join(', ')}`,
    },
  ),
  chooseWire: operation(
    'chooseWire',
    { wire: wireChoiceSchema },
    {
      apply:
        ({ wire }) =>
        job => {
          const wiring = wiringOf(job)
          const others = (wiring.wires ?? []).filter(w => w.route !== wire.route || w.mark !== wire.mark)
          wiring.wires = [...others, wire]
        },
      describe: (_, { wire }) => `chose ${wire.size} AWG for ${wire.mark}`,
    },
  ),
  proposeWire: operation('proposeWire', wireKey, {
    apply:
      ({ route, mark }) =>
      job => {
        const wiring = wiringOf(job)
        wiring.wires = wiring.wires?.filter(w => w.route !== route || w.mark !== mark) ?? []
        swept(job)
      },
    describe: (_, { mark }) => `left the size of ${mark} to the plan`,
  }),
  chooseJoint: operation(
    'chooseJoint',
    { of: line(120, 1), with: line(40, 1).nullable() },
    {
      apply:
        ({ of, with: key }) =>
        job => {
          const wiring = wiringOf(job)
          const others = (wiring.joints ?? []).filter(j => j.of !== of)
          wiring.joints = key === null ? others : [...others, { of, with: key }]
          swept(job)
        },
      describe: (_, { of, with: key }) =>
        key === null ? `left ${of} to the plan` : `chose ${key} for ${of}`,
    },
  ),
  placeOnWall: operation(
    'placeOnWall',
    { box: wallBoxSchema },
    {
      apply:
        ({ box }) =>
        job => {
          const wiring = wiringOf(job)
          const sketch = wiring.sketch ?? { boxes: [] }
          const at = sketch.boxes.findIndex(b => b.of === box.of)
          if (at < 0) sketch.boxes.push(box)
          else sketch.boxes[at] = box
          wiring.sketch = sketch
        },
      describe: (_, { box }) =>
        `placed ${box.of} on the wall, ${figure(box.leftFt)} ft from the left, ${figure(box.bottomFt)} ft up`,
    },
  ),
  takeOffWall: operation(
    'takeOffWall',
    { of: wallBoxSchema.shape.of },
    {
      apply:
        ({ of }) =>
        job => {
          const { sketch } = wiringOf(job)
          if (sketch) sketch.boxes = sketch.boxes.filter(b => b.of !== of)
          swept(job)
        },
      describe: (_, { of }) => `took ${of} off the sketch of the wall`,
    },
  ),
  setWallPhoto: operation(
    'setWallPhoto',
    { photoId: line(60, 1).nullable(), widthFt: within(1, 200, 'ft').optional() },
    {
      apply:
        ({ photoId, widthFt }) =>
        job => {
          if (photoId !== null && !job.photos.some(p => p.id === photoId))
            return [fault('photoId', 'is no photograph of this job any more: choose another')]
          const wiring = wiringOf(job)
          const sketch = wiring.sketch ?? { boxes: [] }
          wiring.sketch = sketch
          if (photoId === null) {
            delete sketch.photoId
            delete sketch.photoWidthFt
          } else sketch.photoId = photoId
          if (photoId !== null && widthFt !== undefined) sketch.photoWidthFt = widthFt
          swept(job)
        },
      describe: (_, { photoId }) =>
        photoId === null
          ? 'took the photograph from behind the sketch'
          : 'put a photograph behind the sketch',
    },
  ),
}
