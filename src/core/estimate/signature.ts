import * as z from 'zod'

const at = z.number().min(-10, 'must lie on the field').max(2010, 'must lie on the field')
/** A drawn signature: strokes of points on a field 1,000 wide. */
export const signatureSchema = z
  .array(
    z
      .array(z.tuple([at, at]))
      .min(1)
      .max(2000, 'has too many points in a stroke'),
  )
  .max(100, 'has too many strokes')
export type Signature = z.infer<typeof signatureSchema>

/** A dot, or a slip of the finger, is no signature: so much of a line at least, of a field 1,000 wide. */
const leastInk = 150

const inkOf = (strokes: Signature): number =>
  strokes.reduce(
    (sum, stroke) =>
      sum +
      stroke.reduce((ink, [x, y], n) => {
        const [px, py] = stroke[n - 1] ?? [x, y]
        return ink + Math.hypot(x - px, y - py)
      }, 0),
    0,
  )

/** Drawn, or for who cannot draw the typed name in its place. */
export const signed = {
  signature: signatureSchema,
  typed: z.literal(true).optional(),
}

/** What keeps it from being a signature; null where it is one. */
export const signatureFault = ({
  signature,
  typed,
}: {
  signature: Signature
  typed?: true | undefined
}): string | null =>
  typed || inkOf(signature) >= leastInk
    ? null
    : 'is too little to be one: draw your name with a finger or the mouse'

/** As the path of an SVG, on the same field. */
export const signaturePath = (strokes: Signature): string =>
  strokes
    .map(stroke => stroke.map(([x, y], n) => `${n ? 'L' : 'M'}${x.toFixed(1)} ${y.toFixed(1)}`).join(' '))
    .join(' ')
