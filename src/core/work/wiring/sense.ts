import { draw, end, lay, put, tell } from './draft'
import type { Site } from './site'
import { terminal } from './terminals'

const leadFt = 6

/** What a managed panel measures with: a current transformer round each hot of the service, with leads of its own. */
export function sensed(site: Site, name: string) {
  const service = site.job.panels.find(p => p.supply === 'service') ?? site.job.panels[0]
  if (!service) return
  const route = lay(site.draft, {
    id: 'sense',
    name: `Current transformers in ${service.name} to ${name}`,
    from: service.name,
    to: name,
    conduit: null,
    lengthFt: leadFt,
    lengthFrom: 'assumed',
    leads: true,
  })
  for (const leg of ['L1', 'L2'] as const) {
    put(site.draft, {
      id: `ct-${leg}`,
      kind: 'current transformer',
      name: `Current transformer round the service’s ${leg}`,
      within: service.name,
      terminals: ['white', 'black'].map(w => terminal(w, `${w} lead`, 'lead')),
    })
    put(site.draft, {
      id: 'managed',
      kind: 'managed panel',
      name,
      within: name,
      terminals: ['white', 'black'].map(w => terminal(`CT ${leg} ${w}`, `CT ${leg}, ${w}`, 'lead')),
    })
    for (const wire of ['white', 'black'] as const)
      draw(site.draft, {
        function: 'sense',
        leg,
        mark: `CT ${leg} ${wire}`,
        from: end(`ct-${leg}`, wire),
        to: end('managed', `CT ${leg} ${wire}`),
        route,
        breakerA: null,
        comes: 'with its device',
      })
  }
  tell(
    site.draft,
    `${name}: the arrow on each current transformer points as its instructions have it, and its leads are never open while current flows; beside line voltage they are insulated for it (NEC 725.136, 300.3(C)).`,
    'sense',
  )
}
