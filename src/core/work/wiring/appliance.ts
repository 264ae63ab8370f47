import { draw, end, put, tell } from './draft'
import { fedBy, inside, type Site, spliced } from './site'
import { terminal } from './terminals'

const wires = [
  ['hot', 'hot 1', 'brass screw'],
  ['neutral', 'neutral', 'silver screw'],
  ['ground', 'ground', 'green screw'],
] as const

/** Hard-wired appliances that get cord and plug: the wires that fed them end on a receptacle in a box beside them. */
export function converted(site: Site) {
  for (const panel of site.found.panels)
    for (const circuit of panel.circuits.filter(c => c.picked))
      for (const load of circuit.loads.filter(l => l.connection === 'hard-wired')) {
        const fed = fedBy(site, circuit.id)
        if (!fed) continue
        const within = `box at the ${load.name}`
        const id = `receptacle-${load.id}`
        site.draft.boxes.add(within)
        put(site.draft, {
          id,
          kind: 'receptacle',
          name: `Receptacle for the ${load.name}`,
          within,
          terminals: wires.map(([what, , screw]) => terminal(what, screw, 'screw')),
        })
        for (const [what, wall] of wires)
          draw(site.draft, {
            function: what,
            ...(what === 'hot' && { leg: panel.busLegs === 'L2' ? 'L2' : 'L1' }),
            circuitId: circuit.id,
            mark: `${load.name} ${what}`,
            from: spliced(site, fed, wall, null, within),
            to: end(id, what),
            route: inside(site, within),
            breakerA: circuit.breakerA,
          })
        tell(
          site.draft,
          `${load.name}: its maker must allow cord and plug (NEC 422.16, 400.10); cord and plug are no larger than its circuit.`,
        )
      }
}
