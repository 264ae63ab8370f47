import * as z from 'zod'

interface EditionFacts {
  /** the articles that stand elsewhere than in the edition of 2020, by their number there */
  moved: Readonly<Record<string, string>>
  /** grounds over four in a box count a quarter of one each: NEC 314.16(B)(5) */
  quarterGrounds: boolean
}

/** The editions of the National Electrical Code that a job may be judged by, oldest first: a row each. */
export const editionFacts = {
  2017: {
    moved: {
      '210.19(A), informational note 4': '210.19(A)(1), informational note 4',
      '310.16': 'table 310.15(B)(16)',
      '310.15(B)(1)': 'table 310.15(B)(2)(a)',
      '310.15(C)(1)': 'table 310.15(B)(3)(a)',
      '310.15(E)': '310.15(B)(5)',
      '702.5(A)': '702.5',
      '706.15': '706.7',
      '705.12(B)(3)(2)': '705.12(B)(2)(3)(b)',
      '705.12(B)(3)': '705.12(B)(2)(3)',
    },
    quarterGrounds: false,
  },
  2020: { moved: {}, quarterGrounds: true },
  2023: {
    moved: {
      '210.19(A), informational note 4': '210.19(A), informational note',
      '702.4(B)(2)': '702.4(A)(2)',
      '702.4(B)': '702.4(A)',
      '705.12(B)(3)(2)': '705.12(B)(2)',
      '705.12(B)(3)': '705.12(B)',
    },
    quarterGrounds: true,
  },
} as const satisfies Record<number, EditionFacts>

export type Edition = keyof typeof editionFacts
export const editions = Object.keys(editionFacts).map(Number) as [Edition, ...Edition[]]
export const editionSchema = z.literal(
  editions,
  `must be ${editions.slice(0, -1).join(', ')} or ${editions.at(-1)}`,
)
export const factsOfEdition = (edition: Edition): EditionFacts => editionFacts[edition]
