// Asks the registry for advisories about what is installed for running; those in docs/advisories.json were looked at, and say why
// they do not concern us. Where the registry gives none, that is said, and nothing fails.
import { spawnSync } from 'node:child_process'
import { readFileSync } from 'node:fs'

const { stdout } = spawnSync('npm', ['audit', '--omit=dev', '--json'], { encoding: 'utf8', timeout: 60_000 })
const told = (() => {
  try {
    return JSON.parse(stdout)
  } catch {
    return {}
  }
})()
if (!told.vulnerabilities) {
  process.stdout.write('advisories: the registry gives none here; not looked at\n')
  process.exit(0)
}
const reviewed = new Set(JSON.parse(readFileSync('docs/advisories.json', 'utf8')).map(r => r.advisory))
const grave = Object.values(told.vulnerabilities)
  .flatMap(v => v.via.filter(a => typeof a === 'object'))
  .filter(a => ['high', 'critical'].includes(a.severity) && !reviewed.has(a.url))
for (const a of grave) process.stdout.write(`advisories: ${a.name}, ${a.severity}: ${a.title} ${a.url}\n`)
if (!grave.length) process.stdout.write('advisories: none that is grave and not reviewed\n')
process.exit(grave.length ? 1 : 0)
