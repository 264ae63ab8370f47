/** The arrows of the house: app → ui → core, app → server → core, workers → core. */
const only = (from, allowed) => ({
  name: `${from}-knows-only-${allowed.join('-') || 'itself'}`,
  severity: 'error',
  from: { path: `^src/${from}/` },
  to: { path: '^src/', pathNot: `^src/(${[from, ...allowed].join('|')})/` },
})

module.exports = {
  forbidden: [
    only('core', []),
    only('workers', ['core']),
    only('ui', ['core', 'workers']),
    only('server', ['core']),
    only('simulators', ['core']),
    only('cli', ['core', 'server']),
    only('app', ['ui', 'server', 'core']),
    {
      name: 'core-is-pure',
      comment: 'The core runs anywhere: no interface, server, database or platform module.',
      severity: 'error',
      from: { path: '^src/core/', pathNot: '\\.test\\.ts$' },
      to: { path: 'node_modules/', pathNot: 'node_modules/(zod|immer|fastest-levenshtein)/' },
    },
    {
      name: 'core-uses-no-platform',
      severity: 'error',
      from: { path: '^src/core/', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'browser-never-opens-the-database',
      severity: 'error',
      from: { path: '^src/(ui|workers)/' },
      to: { path: 'node_modules/(knex|pg|iron-session)/' },
    },
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    { name: 'no-unresolvable', severity: 'error', from: {}, to: { couldNotResolve: true } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    parser: 'swc',
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
    },
  },
}
