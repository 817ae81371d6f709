const { readFileSync } = require('node:fs')
const { join } = require('node:path')

/** The import directions, as the table of docs/architecture.md has them: each room may look into those on its line, and into itself. */
const table = readFileSync(join(__dirname, 'docs/architecture.md'), 'utf8')
const rows = [...table.matchAll(/^\| `([a-z/]+)` \| .* \| ([^|]+) \|$/gm)].map(([, room, imports]) => [room, imports])
const names = rows.map(([room]) => room)
/** A room by its name in the last column, which leaves out the folder that all rooms of its part stand in. */
function named(name, room) {
  const full = name === 'core' || name === 'demo' ? name : `${room.split('/')[0]}/${name}`
  if (full !== 'core' && !names.includes(full))
    throw new Error(`docs/architecture.md: no room is called "${name}", which ${room} may import`)
  return full
}
const rooms = Object.fromEntries(
  rows.map(([room, imports]) => [room, imports === '–' ? [] : imports.split(', ').map((name) => named(name, room))]),
)
if (names.length < 30) throw new Error('docs/architecture.md: the table of the rooms was not found')

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
      name: 'no-place-imports-another',
      severity: 'error',
      comment: 'what two places need is in app/shared',
      from: { path: '^app/features/([^/]+)/' },
      to: { path: '^app/features/', pathNot: '^app/features/$1/' },
    },
    {
      name: 'core-is-pure',
      severity: 'error',
      comment: 'core may use zod, and core/numeric the packages that it stands before',
      from: { path: '^core/' },
      to: {
        dependencyTypes: ['npm', 'npm-dev', 'core'],
        pathNot:
          '^node_modules/(zod|ml-matrix|simple-statistics|jstat|fast-deep-equal|fast-json-patch|@streamparser/json|temml|@noble/ciphers)/',
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
      from: { pathNot: '^(app/shared/charts/|app/(features|shared)/[^/]+/[^/]+-chart\\.ts$|tests/)' },
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
