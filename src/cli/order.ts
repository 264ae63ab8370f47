import { workOrder } from '@/core/order'
import { phases } from '@/core/order/task'
import { print } from './io'
import { readJobFile } from './job'

/**
 * The order of work of a job: task after task with what must be off, what stays live, what it rests on, hold points and minutes.
 */
export async function orderOfFile(file: string): Promise<number> {
  const job = await readJobFile('work-order', file)
  if (!job) return 2
  const { tasks, windows, dark, open, ...minutes } = workOrder(job)
  print({
    ...minutes,
    dark: dark.map(d => ({ circuit: d.name, minutes: d.minutes })),
    windows: windows.map(w => ({
      window: w.id,
      open: w.opened.map(o => `${o.name}: ${o.setting}, ${o.lock}`),
      staysOpen: w.keptOpen.map(o => `${o.name}: ${o.setting}`),
      minutes: w.minutes,
      dark: w.dark.map(d => d.name),
      staysLive: w.staysLive.map(p => p.name),
      withMainsOff: {
        live: w.mainsOnly.now.map(s => s.name),
        couldBecome: w.mainsOnly.could.map(s => s.name),
      },
    })),
    tasks: tasks.map((t, n) => ({
      step: n + 1,
      id: t.id,
      phase: phases[t.phase].name,
      do: t.text,
      lines: t.lines,
      window: t.window,
      meets: t.places.map(p => p.name),
      restsOn: t.restsOn.map(id => tasks.findIndex(o => o.id === id) + 1),
      holds: t.holds.map(h => ({
        kind: h.kind,
        text: h.text,
        ...(h.readings.length && { readings: h.readings.map(r => r.name) }),
      })),
      minutes: t.minutes,
      people: t.people,
      tools: t.tools,
      parts: t.parts,
      builds: t.changes,
    })),
    open,
  })
  return 0
}
