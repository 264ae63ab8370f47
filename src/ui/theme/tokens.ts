/**
 * What every screen and every sheet is made of. Style sheets take these by their names, `var(--text-quiet)`; a test holds that
 * nothing else is used.
 */

/** Sizes of type on the screen, by what is said in them. */
export const text = {
  mini: '0.77rem',
  small: '0.84rem',
  quiet: '0.9rem',
  body: '0.94rem',
  lead: '1.05rem',
  title: '1.35rem',
  figure: '1.7rem',
  huge: '2.6rem',
} as const

/** And on paper. */
export const printText = {
  mini: '6.6pt',
  small: '8.2pt',
  body: '9pt',
  lead: '10.5pt',
  title: '16pt',
} as const

/** In a chart, px. */
export const chartText = 12

/** What stands between things. */
export const gaps = {
  hair: '2px',
  tight: '4px',
  close: '8px',
  usual: '12px',
  wide: '16px',
  far: '24px',
} as const

/** How round a corner is: of a chip, of a card. */
export const radii = { small: '4px', usual: '6px' } as const

/** Ink and paper, which no night changes; sun, generator and marks, which have no place in the palette. */
export const inks = {
  paper: '#ffffff',
  ink: '#111111',
  'ink-quiet': '#555555',
  rule: '#777777',
  'rule-light': '#b8b8b8',
  hatch: '#c4c4c4',
  marked: '#dfeef1',
  sun: '#e0b860',
  'sun-deep': '#b98a2a',
  'sun-edge': '#8a6412',
  engine: '#b9b2c9',
  'engine-dot': '#3c3357',
  mark: '#ffd166',
  'mark-edge': '#15242a',
  water: '#cfe6ea',
  night: '#05161b',
} as const

/** Widths at which a screen changes, px: a narrow field, a phone, a tablet, a small laptop. */
export const widths = { field: 480, phone: 700, tablet: 900, laptop: 1100 } as const

const named = (kind: string, values: Readonly<Record<string, string>>) =>
  Object.fromEntries(Object.entries(values).map(([name, value]) => [`--${kind}-${name}`, value]))

/** All of them as custom properties of the page. */
export const tokens = {
  ...named('text', text),
  ...named('print', printText),
  ...named('gap', gaps),
  ...named('radius', radii),
  ...named('ink', inks),
}
