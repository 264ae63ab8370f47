import type { Edition } from '../job/schema'

/** An article of the Code, where editions differ by edition. */
export type Article = string | Record<Edition, string>

const transferArticle = { 2017: 'NEC 702.5', 2020: 'NEC 702.5(A)', 2023: 'NEC 702.5(A)' } as const
const ampacityArticle = {
  2017: 'NEC 240.4, table 310.15(B)(16)',
  2020: 'NEC 240.4, table 310.16',
  2023: 'NEC 240.4, table 310.16',
} as const
const adjustmentArticle = {
  2017: 'NEC 310.15(B)(3)(a)',
  2020: 'NEC 310.15(C)(1)',
  2023: 'NEC 310.15(C)(1)',
} as const
const busArticle = {
  2017: 'NEC 705.12(B)(2)(3)(b)',
  2020: 'NEC 705.12(B)(3)(2)',
  2023: 'NEC 705.12(B)(2)',
} as const
const autoArticle = { 2017: 'NEC 702.4(B)(2)', 2020: 'NEC 702.4(B)(2)', 2023: 'NEC 702.4(A)(2)' } as const
const capacityArticle = { 2017: 'NEC 702.4(B)', 2020: 'NEC 702.4(B)', 2023: 'NEC 702.4(A)' } as const

/** The article of each check, by its id; those that are not named rest on none. */
export const articles: Readonly<Record<string, Article | undefined>> = {
  'transfer.missing': transferArticle,
  'inlet.live': 'NEC 406.7(D)',
  'interlock.wrong-space': 'NEC 110.3(B), and the interlock’s instructions',
  'interlock.not-listed': 'NEC 110.3(B)',
  'interlock.no-main': 'NEC 702.5, and the interlock’s instructions',
  'interlock.limit': 'NEC 110.3(B), 240.4',
  'backfeed.no-hold-down': 'NEC 408.36(D)',
  'pv.on-island': 'NEC 705.40, and both inverters’ instructions',
  'pv.not-found': 'NEC 705.40, 408.4(A)',
  'appliance-cord.jurisdiction': 'NEC 400.10, 400.12, 422.16',
  'cord.hard-wired': 'NEC 400.12, 422.16',
  'cord.permanent': 'NEC 400.12',
  'bond.two': 'NEC 250.24, 250.30',
  'bond.none': 'NEC 250.30(A), 250.34',
  'bond.gfci-trip': 'NEC 250.6, and the unit’s instructions',
  'service.unbonded': 'NEC 250.24, 250.28',
  'neutral.not-landed': 'NEC 200.3, 300.3(B)',
  'ground.interrupted': 'NEC 250.118, 250.124',
  'subpanel.bonded': 'NEC 250.24(A)(5), 408.40',
  'neutral.left-behind': 'NEC 300.3(B)',
  'protection.lost': 'NEC 210.8, 210.12',
  'neutral.shared-overload': 'NEC 210.4, 310.16; 710.15(C) where article 710 applies',
  'neutral.shared-split': 'NEC 300.3(B), 210.4',
  'neutral.no-tie': 'NEC 210.4(B)',
  'passthrough.forbidden': 'NEC 110.3(B)',
  'v240.bridge': 'NEC 110.3(B)',
  'leg.overload': 'NEC 210.20(A)',
  'power.over': capacityArticle,
  'va.over': capacityArticle,
  'branch.overload': 'NEC 210.19, 210.20(A), 220.18',
  'battery.over-current': 'NEC 240.21(H), 110.3(B)',
  'transfer.limit': 'NEC 110.3(B), 702.4',
  'auto.full-load': autoArticle,
  'solar.over-voltage': 'NEC 690.7(A)',
  'solar.record-cold': 'NEC 690.7(A)',
  'generator.indoors': 'the generator’s instructions; NFPA 37',
  'wire.small': ampacityArticle,
  'wire.derate': adjustmentArticle,
  'conduit.overfull': 'NEC chapter 9, tables 1, 4 and 5',
  'box.overfull': 'NEC 314.16(B)',
  'ground.missing': 'NEC 250.118, 300.3(B)',
  'ground.unknown': 'NEC 250.118',
  'ground.small': 'NEC 250.122',
  'drop.high': {
    2017: 'NEC 210.19(A)(1), informational note 4',
    2020: 'NEC 210.19(A), informational note 4',
    2023: 'NEC 210.19(A), informational note',
  },
  'path.overload': 'NEC 240.4, 240.5',
  'cord.weak-link': 'NEC 240.5, 400.5',
  'cord.unlisted': 'NEC 110.3(B)',
  'position.limit': 'NEC 110.3(B)',
  'position.protects': 'NEC 240.4, 110.3(B)',
  'position.bridged': 'NEC 240.15(B), 110.3(B)',
  'switch.volts': 'NEC 110.3(B), 110.4',
  'splice.metals': 'NEC 110.14',
  'input.limit': 'NEC 110.3(B)',
  'breaker.brand': 'NEC 110.3(B)',
  'breaker.common-trip': 'NEC 240.15(B)',
  'breaker.above-plate': 'NEC 110.3(B), 440.22',
  'panel.no-space': 'NEC 408.36, 408.54',
  'panel.capacity': 'NEC 220.87',
  'panel.bus': busArticle,
  'tandem.not-listed': 'NEC 408.54, 110.3(B)',
  'whip.reach': 'NEC 312.8',
  'working-space': 'NEC 110.26(A)(1)',
  'mount.wet': 'NEC 110.11, 312.2',
  'circuit.unverified': 'NEC 408.4(A)',
  'circuit.double-labelled': 'NEC 408.4(A)',
  'interval-data.missing': 'NEC 220.87',
  'neutral.unknown': 'NEC 210.4',
  'switch-neutral.unknown': 'NEC 250.24, 250.30',
}

/** The article of a check in an edition of the Code; undefined where none speaks. */
export function articleOf(id: string, edition: Edition): string | undefined {
  const article = articles[id]
  return typeof article === 'object' ? article[edition] : article
}
