/** Writes the demo jobs' files with the simulators: a year of utility data and meters' logs. They are committed, packed. */
import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { feedOf as legOf } from '../../src/core/panel/positions'
import { logFiles, packedName, yearFiles } from '../../src/server/seeds/files'
import { demoJobs } from '../../src/server/seeds/jobs'
import { households } from '../../src/simulators/household'
import { meterHeader, play } from '../../src/simulators/meter'
import { seedOf } from '../../src/simulators/seeded'
import { feedOf } from '../../src/simulators/utility'
import { saltmarshWeather, typicalYearCsv, weatherOf } from '../../src/simulators/weather'

const into = 'src/server/seeds/files'
mkdirSync(into, { recursive: true })
const write = (name: string, text: string) => {
  writeFileSync(join(into, name), gzipSync(text, { level: 9 }))
}
for (const { name } of yearFiles) {
  // one of them as another utility writes it
  const manner =
    name === 'saltmarsh-lane'
      ? ({ prefixed: true, powerOfTen: -3 } as const)
      : ({ prefixed: false, powerOfTen: 0 } as const)
  write(`${name}.xml.gz`, [...feedOf(households[name], manner)].join(''))
}
write('saltmarsh-weather.csv.gz', typicalYearCsv(saltmarshWeather, weatherOf(saltmarshWeather)))
for (const { name, job, loadId, hours, stepS } of logFiles) {
  const { job: document, id } = demoJobs[job] ?? {}
  for (const panel of document?.panels ?? [])
    for (const circuit of panel.circuits) {
      const load = circuit.loads.find(l => l.id === loadId)
      if (!load || !id) continue
      const volts = legOf(panel, circuit) === 'both' ? 240 : 120
      const startClockS = Date.UTC(2026, 0, 12, 9, 30) / 1000
      const rows = play({ load, volts, startClockS, hours, stepS, seed: seedOf(id) })
      write(packedName(name), [meterHeader, ...rows].join('\n'))
    }
}
