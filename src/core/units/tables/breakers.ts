/** Standard ratings, amps, NEC 240.6(A). The 2023 edition adds 10 A. */
export const standardBreakersA = [
  15, 20, 25, 30, 35, 40, 45, 50, 60, 70, 80, 90, 100, 110, 125, 150, 175, 200, 225, 250, 300, 350, 400,
] as const
