/** Files of the demo jobs, in files/, packed: `npm run play` writes them with the simulators, the same bits every time. */
export const yearFiles = [
  { name: 'alder-hollow', job: 0, fileId: '5a1de000-0000-4000-8002-000000000001', seriesId: null },
  {
    name: 'saltmarsh-lane',
    job: 1,
    fileId: '5a1de000-0000-4000-8002-000000000002',
    seriesId: '5a1de000-0000-4000-8003-000000000002',
  },
  {
    name: 'mill-street',
    job: 3,
    fileId: '5a1de000-0000-4000-8002-000000000004',
    seriesId: '5a1de000-0000-4000-8003-000000000004',
  },
] as const

/** Meters' logs: which load of which job, how long, how often. The time is that of the survey. */
export const logFiles = [
  { name: 'boiler 48 h.csv', job: 0, loadId: 'boiler', hours: 48, stepS: 30 },
  { name: 'kitchen refrigerator 48 h.csv', job: 0, loadId: 'kitchen-refrigerator', hours: 48, stepS: 30 },
  { name: 'refrigerator 48 h.csv', job: 1, loadId: 'refrigerator', hours: 48, stepS: 30 },
  { name: 'mini-split 24 h.csv', job: 1, loadId: 'minisplit', hours: 24, stepS: 30 },
  { name: 'ventilation fan 24 h.csv', job: 2, loadId: 'fan', hours: 24, stepS: 60 },
  { name: 'furnace 48 h.csv', job: 3, loadId: 'furnace', hours: 48, stepS: 30 },
  { name: 'unit heater 24 h.csv', job: 4, loadId: 'heater', hours: 24, stepS: 60 },
  { name: 'bilge pump 24 h.csv', job: 5, loadId: 'bilge', hours: 24, stepS: 60 },
] as const

export const packedName = (name: string) => `${name.replaceAll(' ', '-').replace(/\.csv$/, '')}.csv.gz`
export const logIdOf = (n: number) => `5a1de000-0000-4000-8004-${String(n + 1).padStart(12, '0')}`
