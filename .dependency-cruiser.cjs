/** The import directions of docs/architecture.md. Each room may look into those on its line, and into itself. */
const rooms = {
  'core/units': [],
  'core/numeric': [],
  'core/session': ['core/units'],
  'core/chain': ['core/units', 'core/numeric', 'core/session'],
  'core/latency': ['core/units', 'core/numeric', 'core/session'],
  'core/evaluation': ['core/units', 'core/numeric', 'core/session', 'core/chain', 'core/latency'],
  'core/plan': ['core/units', 'core/numeric', 'core/session', 'core/chain', 'core/evaluation'],
  'core/timing': ['core/units', 'core/session', 'core/chain', 'core/latency', 'core/evaluation'],
  'core/monitoring': ['core/units', 'core/session', 'core/chain', 'core/latency', 'core/evaluation'],
  'core/signals': ['core/units', 'core/numeric'],
  'core/measure': ['core/units', 'core/numeric'],
  'core/simulated': ['core/units', 'core/numeric', 'core/session', 'core/chain', 'core/signals'],
  'core/bench': [
    'core/units',
    'core/numeric',
    'core/session',
    'core/chain',
    'core/latency',
    'core/evaluation',
    'core/monitoring',
    'core/signals',
    'core/measure',
    'core/simulated',
  ],
  'demo': ['core'],
  'server': ['core'],
  'app/persistence': ['core'],
  'app/workers': ['core'],
  'app/charts': ['core'],
  'app/stores': ['core', 'demo', 'app/persistence'],
  'app/composables': ['core', 'app/stores', 'app/workers'],
  'app/components': ['core', 'app/composables', 'app/stores', 'app/charts'],
  'app/pages': ['core', 'app/composables', 'app/stores', 'app/components'],
}
const inside = (folders) => `^(${folders.join('|')})/`

module.exports = {
  forbidden: [
    { name: 'no-cycles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'no-unresolved',
      severity: 'error',
      from: { path: '^(core|app|server|demo)/' },
      to: { couldNotResolve: true, pathNot: '^(#|virtual:)' },
    },
    ...Object.entries(rooms).map(([room, allowed]) => ({
      name: `from-${room.replace('/', '-')}`,
      severity: 'error',
      comment: `${room} may import only ${allowed.join(', ') || 'nothing of ours'}`,
      from: { path: `^${room}/` },
      to: { path: '^(core|app|server|demo|tests)/', pathNot: inside([room, ...allowed]) },
    })),
    {
      name: 'core-is-pure',
      severity: 'error',
      comment: 'core may use zod, and core/numeric the packages that it stands before',
      from: { path: '^core/' },
      to: {
        dependencyTypes: ['npm', 'npm-dev', 'core'],
        pathNot: '^node_modules/(zod|ml-matrix|simple-statistics|jstat|fast-deep-equal)/',
      },
    },
    {
      name: 'arithmetic-packages-behind-numeric',
      severity: 'error',
      from: { pathNot: '^(core/numeric|tests)/' },
      to: { path: '^node_modules/(ml-matrix|simple-statistics|jstat)/' },
    },
    {
      name: 'dexie-only-in-persistence',
      severity: 'error',
      from: { pathNot: '^(app/persistence|tests)/' },
      to: { path: '^node_modules/dexie/' },
    },
    {
      name: 'chart-js-only-in-charts',
      severity: 'error',
      from: { pathNot: '^(app/charts|app/components|tests)/' },
      to: { path: '^node_modules/chart.js/' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.paths.json' },
    enhancedResolveOptions: {
      extensions: ['.ts', '.vue', '.mjs', '.json'],
      exportsFields: ['exports'],
      conditionNames: ['import', 'types', 'default'],
    },
  },
}
