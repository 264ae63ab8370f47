import { type Household, households } from '@/simulators/household'

const byJob: Readonly<Record<string, keyof typeof households>> = {
  '5a1de000-0000-4000-8000-000000000001': 'alder-hollow',
  '5a1de000-0000-4000-8000-000000000002': 'saltmarsh-lane',
  '5a1de000-0000-4000-8000-000000000004': 'mill-street',
}

/** The made-up house of a demo job, for the simulated utility; null for other jobs. */
export const demoHouse = (jobId: string): Household | null => {
  const name = byJob[jobId]
  return name ? households[name] : null
}
