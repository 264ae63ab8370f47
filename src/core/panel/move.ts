import { bodyOf, bodySpaces, mateAt } from './body'
import { legOf, occupancy, positionText, spaceName } from './positions'
import type { Circuit, Panel } from './schema'

/** Where circuits end when one is moved, or the sentence that says why it cannot be. */
export type Moved =
  | { ok: true; places: Map<string, Pick<Circuit, 'position' | 'half'>> }
  | { ok: false; why: string }

/**
 * Moves a breaker with everything that comes out with it: to free spaces, or in trade with what stands there when that
 * fits where this one stood. Within one body (a tied pair, a quad) two wires trade places instead.
 */
export function moved(panel: Panel, circuit: Circuit, toPosition: number): Moved {
  const body = bodyOf(panel.circuits, circuit)
  const from = bodySpaces(body)
  const name = (c: Circuit) => c.label || `breaker ${positionText(panel, c)}`
  const places: Extract<Moved, { ok: true }>['places'] = new Map()
  if (toPosition !== circuit.position && from.includes(toPosition)) {
    const mate = mateAt(body, circuit, toPosition)
    if (mate && circuit.poles === 1) {
      places.set(circuit.id, { position: mate.position, half: mate.half })
      places.set(mate.id, { position: circuit.position, half: circuit.half })
      return { ok: true, places }
    }
  }
  const shift = toPosition - circuit.position
  const to = from.map(space => space + shift)
  const off = to.find(space => space < 1 || space > panel.spaces)
  if (off !== undefined)
    return { ok: false, why: `has no space ${spaceName(panel, off)} in a panel of ${panel.spaces}` }
  const unusable = to.find(space => panel.unusable.includes(space))
  if (unusable !== undefined)
    return {
      ok: false,
      why: `cannot take a breaker at ${spaceName(panel, unusable)}: it is marked as unusable`,
    }
  const at = occupancy(panel.circuits)
  const others = [...new Set(to.flatMap(space => at.get(space) ?? []))].filter(c => !body.includes(c))
  const bodies = others.flatMap(c => bodyOf(panel.circuits, c))
  const stuck = bodies.find(c => bodySpaces([c]).some(space => !to.includes(space)))
  if (stuck || (others.length && to.some(space => from.includes(space))))
    return {
      ok: false,
      why: `cannot move to ${to.map(space => spaceName(panel, space)).join('·')}: ${name(stuck ?? others[0] ?? circuit)} is in the way`,
    }
  for (const c of body) places.set(c.id, { position: c.position + shift, half: c.half })
  for (const c of new Set(bodies)) places.set(c.id, { position: c.position - shift, half: c.half })
  return { ok: true, places }
}

/** What moving a breaker changes in the wiring, a sentence each; the first says whether it can be done at all. */
export function moveMeans(
  panel: Panel,
  circuit: Circuit,
  toPosition: number,
  liveLeg: 'L1' | 'L2' | null,
): string[] {
  const move = moved(panel, circuit, toPosition)
  if (!move.ok) return [`The panel ${move.why}.`]
  const after = panel.circuits.map(c => ({ ...c, ...move.places.get(c.id) }))
  const said: string[] = []
  for (const c of panel.circuits) {
    const now = after.find(a => a.id === c.id)
    if (!now || now.position === c.position) continue
    const name = c.label || 'unlabelled'
    const [was, is] = [legOf(panel, c.position), legOf(panel, now.position)]
    const where = `${positionText(panel, c)} to ${positionText(panel, now)}`
    if (c.poles === 2) said.push(`${name}: ${where}; still across both legs.`)
    else if (was === is) said.push(`${name}: ${where}; stays on ${is}.`)
    else
      said.push(
        `${name}: ${where}; from ${was} to ${is}${liveLeg ? `, which is ${is === liveLeg ? 'live' : 'dead'} with one leg live` : ''}.`,
      )
    const { neutral } = c
    const partner = neutral.kind === 'shared' ? after.find(a => a.id === neutral.with) : undefined
    if (partner && c.poles === 1 && legOf(panel, partner.position) === is && was !== is)
      said.push(
        `It would stand on ${is} with ${partner.label || positionText(panel, partner)}, which shares its neutral: their currents add.`,
      )
    if (c.protection !== 'none' && c.id === circuit.id)
      said.push('Its neutral pigtail has to reach the bar from the new place.')
  }
  const partner = circuit.neutral.kind === 'shared' ? circuit.neutral : null
  if (partner && !move.places.has(partner.with))
    said.push(
      'Its partner of the shared neutral stays: keep both hots within reach of one tie (NEC 210.4(B)).',
    )
  const rows = Math.abs(Math.ceil(toPosition / 2) - Math.ceil(circuit.position / 2))
  const across = toPosition % 2 !== circuit.position % 2
  if (rows || across)
    said.push(
      `The wire has to reach ${[...(rows ? [`${rows} row${rows > 1 ? 's' : ''} ${toPosition > circuit.position ? 'further down' : 'further up'}`] : []), ...(across ? ['the other side'] : [])].join(' and ')}; a splice inside the panel is allowed where the gutter has room (NEC 312.8).`,
    )
  return said
}
