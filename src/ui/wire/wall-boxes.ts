import { type WallBox, wiringChoicesSchema } from '@/core/hookup/wiring-choices'

/** How large things on a wall usually are, ft: across, high, and above the floor. */
const usual: readonly [RegExp, readonly [number, number, number]][] = [
  [/^panel-/, [1.25, 2.5, 3.5]],
  [/^(switch|secondSwitch)$/, [1, 1.5, 4]],
  [/^managed$/, [1.25, 2, 3.75]],
  [/^inlet$/, [0.5, 0.5, 3]],
  [/^unit-/, [1.5, 2, 4]],
  [/^bank-/, [1.75, 2, 0]],
]
const other = [0.5, 0.5, 4] as const

/** A box of the usual size, to the right of those that are placed. */
export function usualBox(of: string, placed: readonly WallBox[]): WallBox {
  const [widthFt, heightFt, bottomFt] = usual.find(([kind]) => kind.test(of))?.[1] ?? other
  const right = placed.reduce((most, b) => Math.max(most, b.leftFt + b.widthFt), -1)
  return { of, leftFt: right + 1, bottomFt, widthFt, heightFt }
}

const sketch = wiringChoicesSchema.shape.sketch.unwrap()
export const wallKinds = { photoWidth: sketch.shape.photoWidthFt.unwrap() }

/** Paper stays paper at night, and so do the buttons on it. */
export const onPaper = {
  color: 'var(--ink-ink)',
  '& .react-flow__controls-button': { color: 'var(--ink-ink)' },
} as const
