import type { Want } from '@/core/ask/brief'
import type { About, Photo } from '@/core/ask/evidence'
import { understood, wantOf } from '@/core/ask/want'
import { linkOf, withAdapter } from '@/core/assess/path'
import type { Adapter, Cord } from '@/core/equipment/hookup-kinds'
import type { UnitEquipment } from '@/core/equipment/source-kinds'
import type { Link } from '@/core/hookup/design'
import { library } from '@/core/loads/library'
import type { Load } from '@/core/loads/load'
import type { Utility } from '@/core/loads/utility'
import { summed } from '@/core/loads/utility-year'
import { bare, type Circuit, type Panel } from '@/core/panel/schema'
import type { Unit } from '@/core/source/design'
import type { SourcedNumber } from '@/core/sourced'
import type { Origin } from '@/core/working'
import { type Household, yearOf } from '@/simulators/household'

/** What the demo jobs are made with. All made up; customers are called by their place. */

/** A figure with where it comes from. */
export const says =
  (from: Origin, on?: string, document?: string) =>
  (value: number): SourcedNumber => ({ value, from, ...(on && { on }), ...(document && { document }) })

export const typical = says('typical value')
export const assumed = says('assumed')
export const plate = says('nameplate', '2026-01-12', 'survey photographs')
export const metered = (document: string) => says('metered', '2026-01-14', document)

type Facts = Partial<Omit<Load, 'runningW' | 'dutyFraction'>>
export const load = (
  id: string,
  name: string,
  runningW: SourcedNumber,
  dutyFraction: Load['dutyFraction'],
  facts: Facts = {},
): Load => ({
  id,
  name,
  runningW,
  dutyFraction,
  powerFactor: typical(1),
  idleW: assumed(0),
  nature: 'plain',
  byHand: false,
  needsBond: false,
  ...facts,
})

type CircuitFacts = Partial<Omit<Circuit, 'position' | 'breakerA' | 'label'>>
export const circuit = (
  position: number,
  breakerA: number,
  label: string,
  facts: CircuitFacts = {},
): Circuit => ({
  id: `c${position}`,
  position,
  poles: 1,
  breakerA,
  label,
  purpose: 'loads',
  wire: { material: 'cu', size: breakerA <= 15 ? '14' : breakerA <= 20 ? '12' : breakerA <= 30 ? '10' : '6' },
  neutral: { kind: 'own' },
  protection: 'none',
  tier: 3,
  picked: false,
  loads: [],
  ...facts,
})

export const sorted = (circuits: Circuit[]) => circuits.sort((a, b) => a.position - b.position)

export const seen = { by: 'Field technician', on: '2026-01-12', found: 'known' as const }
export const blank = (position: number, breakerA: number) =>
  circuit(position, breakerA, '', { neutral: { kind: 'unknown' }, wire: undefined })

/** Two one-poles that share a neutral, upper first, and how they are joined. */
export function sharing(a: Circuit, b: Circuit, tie?: 'handle' | 'common trip'): Circuit[] {
  const half = (c: Circuit, other: Circuit): Circuit => ({
    ...c,
    neutral: { kind: 'shared', with: other.id },
    ...(tie && { tie: { with: other.id, kind: tie } }),
  })
  return [half(a, b), half(b, a)]
}

export const panel = (
  id: string,
  name: string,
  spaces: number,
  mainA: number | undefined,
  facts: Partial<Panel>,
) => ({
  ...bare(id, name, spaces, mainA),
  ...facts,
})

const sizes = { tall: [900, 1200], wide: [1200, 900] } as const

/** A photograph of a demo job; its bytes are drawn beforehand and stand in photos/ by this id. */
export const photo = (
  id: string,
  shape: keyof typeof sizes,
  name: string,
  about: About,
  facts: Partial<Photo> = {},
): Photo => ({
  id: `5a1de000-0000-4000-8001-${id.padStart(12, '0')}`,
  name,
  by: 'Customer',
  on: '2026-01-10',
  width: sizes[shape][0],
  height: sizes[shape][1],
  turns: 0,
  about,
  marks: [],
  ...facts,
})

/** A unit of a source as the catalogue has it. */
export const unit = (id: string, equipment: UnitEquipment, facts: Partial<Unit> = {}): Unit => ({
  id,
  equipment,
  expansionUnits: 0,
  owned: false,
  ...facts,
})

/** A cord of the catalogue as a link of a path. */
export const linkOfCord: (cord: Cord, id: string) => Link = linkOf

/** An adapter of the catalogue as a link of a path. */
export const linkOfAdapter = (adapter: Adapter, id: string): Link => {
  const [link] = withAdapter([], 0, adapter, id)
  if (!link) throw new Error('an adapter makes a link')
  return link
}

/** The four pictures that are asked of every panel, with the requests they answer. */
export const panelPhotos = (job: string, panelId: string): Photo[] => [
  photo(
    `${job}01`,
    'tall',
    'Panel, door open',
    { kind: 'panel', panelId },
    { request: `photo:panel:${panelId}` },
  ),
  photo(
    `${job}02`,
    'tall',
    'Directory',
    { kind: 'panel', panelId },
    { request: `photo:directory:${panelId}` },
  ),
  photo(
    `${job}03`,
    'tall',
    'Sticker in the panel',
    { kind: 'panel', panelId },
    { request: `photo:sticker:${panelId}` },
  ),
  photo(`${job}04`, 'wide', 'Wall beside the panel', { kind: 'wall' }, { request: 'photo:wall' }),
]

/** A nameplate, with what was read from it where it stands on the picture. */
export const plateOf = (id: string, name: string, about: About, text: string, request?: string): Photo =>
  photo(id, 'wide', name, about, {
    ...(request && { request }),
    marks: [{ id: 'plate', x: 0.18, y: 0.2, w: 0.64, h: 0.6, about, text }],
  })

/** What a made-up house’s year says, as if its file had been read; the intervals are kept by the same id. */
export function utilityOf(house: Household, seriesId: string): Utility {
  const [forward] = yearOf(house)
  const said = forward && summed(forward)
  if (!said) throw new Error(`the year of ${house.id} says nothing`)
  const { left: _, ...facts } = said
  return { ...facts, seriesId, meterId: `${house.id}/1`, document: `${house.id}.xml`, on: '2026-02-10' }
}

/** Something asked for on the first call, with what the library says of it. */
export function wanted(
  id: string,
  name: string,
  text: string,
  season: 'winter' | 'spring' | 'summer' = 'spring',
): Want {
  let n = 0
  const making = {
    library: library.map(typical => ({ typical, firms: false })),
    season,
    newId: () => `${id}-${++n}`,
  }
  const [said] = understood(text, library)
  if (!said) throw new Error(`no library knows ${text}`)
  return { ...wantOf(said, making), id, name }
}
