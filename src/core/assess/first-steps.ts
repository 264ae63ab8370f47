import type { Job } from '../job/schema'

/** What is to be done before anything can be proved, in the order of the work. */
export interface FirstStep {
  view: 'first' | 'panel' | 'loads' | 'source' | 'hook-up'
  what: string
  done: boolean
}

export function firstSteps({ brief, panels, source, hookup }: Job): FirstStep[] {
  const circuits = panels.flatMap(p => p.circuits)
  const picked = circuits.filter(c => c.picked)
  return [
    { view: 'first', what: 'Ask what must stay alive, and how long', done: brief.wants.length > 0 },
    { view: 'panel', what: 'Enter the breakers of the panel', done: circuits.length > 0 },
    { view: 'panel', what: 'Pick the circuits that must run', done: picked.length > 0 },
    {
      view: 'loads',
      what: 'Say what each of them feeds',
      done: picked.length > 0 && picked.every(c => c.loads.length > 0),
    },
    { view: 'source', what: 'Choose what delivers', done: (source?.units.length ?? 0) > 0 },
    { view: 'hook-up', what: 'Choose how it is connected', done: hookup.method !== 'undecided' },
  ]
}
