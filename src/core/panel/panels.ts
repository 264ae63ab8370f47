import { checkPanel, type Panel } from './schema'

type Say = (path: PropertyKey[], message: string) => void

/** Panels together: each by itself, then what holds between them: ids, and who feeds whom. */
export function checkPanels(panels: readonly Panel[], say: Say) {
  const ids = new Set<string>()
  const unique = (id: string, path: PropertyKey[]) => {
    if (ids.has(id)) say(path, `repeats the id ${id}`)
    ids.add(id)
  }
  panels.forEach((panel, n) => {
    unique(panel.id, ['panels', n, 'id'])
    panel.circuits.forEach((circuit, i) => {
      unique(circuit.id, ['panels', n, 'circuits', i, 'id'])
    })
    checkPanel(panel, (path, message) => say(['panels', n, ...path], message))
    if (panels.some((p, o) => o < n && p.mark === panel.mark))
      say(['panels', n, 'mark'], 'must differ from the other panels’ marks')
    const { feederId } = panel
    if (feederId === undefined) return
    const at = ['panels', n, 'feederId']
    const from = panels.find(p => p.circuits.some(c => c.id === feederId))
    const feeder = from?.circuits.find(c => c.id === feederId)
    if (!from || from === panel) say(at, 'must name a circuit of another panel')
    else if (feeder?.poles !== 2) say(at, 'must name a two-pole circuit')
    else if (panels.some((p, o) => o < n && p.feederId === feederId))
      say(at, 'names a circuit that feeds another panel already')
    else if (circular(panels, panel)) say(at, 'makes the panels feed each other in a circle')
  })
}

function circular(panels: readonly Panel[], start: Panel): boolean {
  let at: Panel | undefined = start
  for (let n = 0; at && n <= panels.length; n++) {
    const { feederId }: Panel = at
    at = feederId === undefined ? undefined : panels.find(p => p.circuits.some(c => c.id === feederId))
    if (at === start) return true
  }
  return false
}
