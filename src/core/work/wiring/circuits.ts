import type { TransferSwitch } from '../../equipment/hookup-kinds'
import { breakerAt, positionOf } from '../../hookup/position'
import type { Panel } from '../../panel/schema'
import { conductorSizeSchema } from '../../units/tables/conductors'
import { draw, end, lay, put, tell } from './draft'
import type { Supply } from './feed'
import { atBar, atBreaker, type Fed, fedBy, nameOf, polesOf, type Site, sharesWith, spliced } from './site'
import { ratedTerminal, terminal } from './terminals'

const usualWhipIn = 24
const wallHots = ['hot 1', 'hot 2'] as const

/** The leads that a switch brings: how long, by whom that is told, and whether it brings any. */
function whipOf(site: Site, device: TransferSwitch | undefined) {
  const { whip } = site.job.hookup
  const inches = whip?.leadIn ?? device?.whipIn
  return {
    lengthFt: (inches ?? usualWhipIn) / 12,
    lengthFrom: whip ? ('job' as const) : device?.whipIn ? ('device' as const) : ('assumed' as const),
    leads: inches !== undefined,
  }
}

/** Each picked circuit through its position: from its breaker in, and out to the wire that was lifted from that breaker. */
export function throughPositions(site: Site) {
  const { hookup } = site.job
  const led = new Set<string>()
  for (const { position, circuitId } of hookup.positions ?? []) {
    const fed = fedBy(site, circuitId)
    const which = positionOf(hookup, position)?.device
    const device = which && hookup[which]
    if (!fed?.circuit.picked || !which || !device) continue
    const whip = whipOf(site, which === 'managed' ? undefined : hookup[which])
    const route = lay(site.draft, {
      id: `whip-${which}`,
      name: `${device.name} to ${fed.panel.name}`,
      from: device.name,
      to: fed.panel.name,
      conduit: 'FMC',
      lengthFt: whip.lengthFt,
      lengthFrom: whip.lengthFrom,
      leads: whip.leads,
    })
    for (const { pole, leg } of polesOf(fed)) {
      const at = position + pole
      const size = positionOf(hookup, at)?.leadSize
      put(site.draft, {
        id: which,
        kind: which === 'managed' ? 'managed panel' : 'switch',
        name: device.name,
        within: device.name,
        terminals: [
          terminal(`${at} in`, `position ${at}, in`, 'lead'),
          terminal(`${at} out`, `position ${at}, out`, 'lead'),
        ],
      })
      const common = {
        function: 'hot' as const,
        leg,
        circuitId,
        route,
        breakerA: Math.max(fed.circuit.breakerA, breakerAt(hookup, at) ?? 0),
        ...(whip.leads && { comes: 'with its device' as const }),
        ...(size && { size: conductorSizeSchema.parse(size) }),
      }
      draw(site.draft, {
        ...common,
        mark: `${at} in`,
        from: atBreaker(site, fed, pole),
        to: end(which, `${at} in`),
      })
      draw(site.draft, {
        ...common,
        mark: `${at} out`,
        from: end(which, `${at} out`),
        to: spliced(site, fed, wallHots[pole] ?? 'hot 1', leg, fed.panel.name),
      })
    }
    if (which !== 'managed' && hookup[which]?.switchesNeutral) {
      // of a pair the one neutral goes through once, with the first of its hots
      const other = sharesWith(fed.circuit)
      if (!other || !led.has(other)) switchedNeutral(site, fed, which, position, route, whip.leads)
      led.add(circuitId)
    } else
      tell(
        site.draft,
        `${device.name}: the neutrals of its circuits stay where they end, on the bar or on their AFCI or GFCI breaker; hot in and hot out lie side by side, so that their fields cancel (NEC 300.3(B)).`,
        route,
      )
  }
}

/** A neutral that the switch takes along: lifted from the bar, led through, and back to the circuit. */
function switchedNeutral(
  site: Site,
  fed: Fed,
  which: 'switch' | 'secondSwitch',
  position: number,
  route: string,
  leads: boolean,
) {
  const [into, out] = [`${position} neutral in`, `${position} neutral out`]
  put(site.draft, {
    id: which,
    kind: 'switch',
    name: site.job.hookup[which]?.name ?? which,
    within: site.job.hookup[which]?.name ?? which,
    terminals: [
      terminal(into, `position ${position}, neutral in`, 'lead'),
      terminal(out, `position ${position}, neutral out`, 'lead'),
    ],
  })
  const common = {
    function: 'neutral' as const,
    circuitId: fed.circuit.id,
    route,
    breakerA: fed.circuit.breakerA,
    ...(leads && { comes: 'with its device' as const }),
  }
  draw(site.draft, {
    ...common,
    mark: `${position} N in`,
    from: atBar(site, fed.panel, 'neutral'),
    to: end(which, into),
  })
  draw(site.draft, {
    ...common,
    mark: `${position} N out`,
    from: end(which, out),
    to: spliced(site, fed, 'neutral', null, fed.panel.name),
  })
}

/** The switch’s own side: where the source comes in, and the ground and neutral that it leads to the panel. */
export function atSwitch(site: Site, which: 'switch' | 'secondSwitch' | 'managed', panel: Panel): Supply {
  const { hookup } = site.job
  const device = hookup[which]
  const own = which === 'managed' ? undefined : hookup[which]
  const two = own?.volts !== '120'
  const name = device?.name ?? which
  const inputA = device?.inputA ?? 30
  put(site.draft, {
    id: which,
    kind: which === 'managed' ? 'managed panel' : 'switch',
    name,
    within: name,
    terminals: [
      ratedTerminal('source L1', inputA),
      ...(two ? [ratedTerminal('source L2', inputA)] : []),
      ratedTerminal('source neutral', inputA),
      ratedTerminal('source ground', inputA),
      ratedTerminal('ground', inputA),
    ],
  })
  const whip = whipOf(site, own)
  const route = lay(site.draft, {
    id: `whip-${which}`,
    name: `${name} to ${panel.name}`,
    from: name,
    to: panel.name,
    conduit: 'FMC',
    lengthFt: whip.lengthFt,
    lengthFrom: whip.lengthFrom,
    leads: whip.leads,
  })
  const common = {
    route,
    breakerA: inputA,
    ...(whip.leads && { comes: 'with its device' as const }),
  }
  // hots alone are switched: the source's neutral ends on the bar of the house
  if (!own?.switchesNeutral) {
    put(site.draft, {
      id: which,
      kind: 'switch',
      name,
      within: name,
      terminals: [ratedTerminal('neutral', inputA)],
    })
    draw(site.draft, {
      ...common,
      function: 'neutral',
      mark: 'N',
      from: end(which, 'neutral'),
      to: atBar(site, panel, 'neutral'),
      balanced: two && site.job.source?.arrangement !== 'tied',
    })
  }
  draw(site.draft, {
    ...common,
    function: 'ground',
    mark: 'G',
    from: end(which, 'ground'),
    to: atBar(site, panel, 'ground'),
  })
  return {
    L1: end(which, 'source L1'),
    L2: two ? end(which, 'source L2') : undefined,
    neutral: end(which, 'source neutral'),
    ground: end(which, 'source ground'),
  }
}

/**
 * Circuits led over to another panel: from a splice in the panel that they came out of, through one raceway, each to its new
 * breaker, the neutral of a pair once. Their grounds stay where they are: one ground of the raceway joins the bars.
 */
export function ledOver(site: Site, circuitIds: readonly string[], from: Panel, to: Panel) {
  if (!circuitIds.length) return
  const { hookup } = site.job
  const run =
    hookup.runs?.find(r => r.serves === 'circuits') ??
    hookup.runs?.find(r => r.conductors > 4 && r.serves === undefined)
  const route = lay(site.draft, {
    id: 'led-over',
    name: `${from.name} to ${to.name}`,
    from: from.name,
    to: to.name,
    conduit: run?.conduit ?? site.habits.raceway,
    tradeSize: run?.tradeSize,
    lengthFt: run?.lengthFt ?? nippleFt,
    lengthFrom: run ? 'job' : 'assumed',
    ambientC: run?.ambientC,
  })
  if (hookup.neutrals !== 'follow their hots')
    tell(
      site.draft,
      hookup.neutrals === 'stay behind'
        ? `${from.name} to ${to.name}: the hots are led without their neutrals, which belong with them (NEC 300.3(B)).`
        : `${from.name} to ${to.name}: the neutrals are drawn beside their hots; that is not decided yet.`,
    )
  const tied = site.job.source?.arrangement === 'tied'
  const done = new Set<string>()
  let largestA = 15
  for (const id of circuitIds) {
    const fed = fedBy(site, id)
    if (!fed) continue
    const { circuit } = fed
    largestA = Math.max(largestA, circuit.breakerA)
    const common = { circuitId: id, route, breakerA: circuit.breakerA }
    for (const { pole, leg } of polesOf(fed))
      draw(site.draft, {
        ...common,
        function: 'hot',
        leg,
        mark: nameOf(site, fed),
        from: spliced(site, fed, wallHots[pole] ?? 'hot 1', leg, from.name),
        to: atBreaker(site, fed, pole),
      })
    if (circuit.poles === 2)
      tell(site.draft, `${nameOf(site, fed)}: a neutral goes along only where its cable has one.`)
    const other = sharesWith(circuit)
    if (hookup.neutrals === 'stay behind' || (other && done.has(other))) continue
    done.add(id)
    draw(site.draft, {
      ...common,
      function: 'neutral',
      mark: `${nameOf(site, fed)} N`,
      from: spliced(site, fed, 'neutral', null, from.name),
      to: atBar(site, to, 'neutral'),
      balanced: (other !== undefined || circuit.poles === 2) && !tied,
    })
  }
  draw(site.draft, {
    function: 'ground',
    mark: 'G',
    from: atBar(site, from, 'ground'),
    to: atBar(site, to, 'ground'),
    route,
    breakerA: largestA,
  })
}
const nippleFt = 2
