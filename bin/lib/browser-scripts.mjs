// Bundles what browsers run beside the application: the worker that keeps the field screens, with the list of the files that these can need (their
// names change with their content), and the script of an offer.
import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs'
import { build } from 'esbuild'

/** The screens that are kept for a place without a connection. */
const kept = ['field', 'prove', '(workspace)/trace', '(workspace)/first']

/** What the work and its tests may take on a device, as it is kept there, with no photograph. */
const mostBytes = 3_000_000

const named = text =>
  [...text.matchAll(/static\/(?:chunks|media)\/[\w.~/-]+?\.(?:js|css|woff2)/g)].map(m => m[0])
const read = file => (existsSync(`.next/${file}`) ? readFileSync(`.next/${file}`, 'utf8') : '')
/** What screens begin with, and whatever that names, and so on: what they may fetch later is in it. */
function closure(routes) {
  const waiting = [
    ...routes.flatMap(route =>
      named(read(`server/app/jobs/[id]/${route}/page_client-reference-manifest.js`)),
    ),
    ...named(read('build-manifest.json')),
  ]
  const files = new Set()
  for (let file = waiting.pop(); file !== undefined; file = waiting.pop()) {
    if (files.has(file) || !existsSync(`.next/${file}`)) continue
    files.add(file)
    if (!file.endsWith('.woff2')) waiting.push(...named(read(file)))
  }
  return files
}
const bytes = [...closure(['field', 'prove'])].reduce((sum, file) => sum + statSync(`.next/${file}`).size, 0)
if (bytes > mostBytes)
  throw new Error(`what the work and its tests keep on a device is ${bytes} bytes, more than ${mostBytes}`)
const files = closure(kept)
for (const font of readdirSync('.next/static', { recursive: true, encoding: 'utf8' }))
  if (font.endsWith('.woff2')) files.add(`static/${font}`)
// a page of the old build must not meet files of the new one
const buildId = readFileSync('.next/BUILD_ID', 'utf8')
await build({
  entryPoints: ['src/workers/field.ts'],
  outfile: 'dist/field.js',
  bundle: true,
  minify: true,
  format: 'iife',
  target: 'es2022',
  define: {
    'self.__FILES': JSON.stringify([...files].map(file => ({ url: `/_next/${file}`, revision: null }))),
  },
  banner: { js: `/* ${buildId} */` },
  logLevel: 'warning',
})
// the scripts of pages that are plain HTML and load nothing else: a customer's offer; the page of a house, and what keeps it
for (const [entry, outfile] of [
  ['src/ui/offer/offer.ts', 'dist/offer.js'],
  ['src/ui/house/house.ts', 'dist/house.js'],
  ['src/workers/keep-house.ts', 'dist/keep-house.js'],
])
  await build({
    entryPoints: [entry],
    outfile,
    bundle: true,
    minify: true,
    format: 'iife',
    target: 'es2020',
    logLevel: 'warning',
  })
