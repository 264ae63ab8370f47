// Bundles what browsers run beside the application: the worker that keeps the field screens, with the list of the program's files (their
// names change with their content), and the script of an offer.
import { readdirSync, readFileSync } from 'node:fs'
import { build } from 'esbuild'

const files = readdirSync('.next/static', { recursive: true, encoding: 'utf8' })
  .filter(file => /\.(js|css|woff2)$/.test(file))
  .map(file => ({ url: `/_next/static/${file}`, revision: null }))
// a page of the old build must not meet files of the new one
const buildId = readFileSync('.next/BUILD_ID', 'utf8')
await build({
  entryPoints: ['src/workers/field.ts'],
  outfile: 'dist/field.js',
  bundle: true,
  minify: true,
  format: 'iife',
  target: 'es2022',
  define: { 'self.__FILES': JSON.stringify(files) },
  banner: { js: `/* ${buildId} */` },
  logLevel: 'warning',
})
// the one script of a customer's offer: its page is plain HTML and loads nothing else
await build({
  entryPoints: ['src/ui/offer/offer.ts'],
  outfile: 'dist/offer.js',
  bundle: true,
  minify: true,
  format: 'iife',
  target: 'es2020',
  logLevel: 'warning',
})
