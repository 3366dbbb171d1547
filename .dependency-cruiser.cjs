// One direction of imports: web -> core, server -> core; core imports neither. Rooms open only through their index.ts.
const folder = (name) => `^core/src/${name}/`
/** All that a setup's log is derived with. */
const UNDER_SETUP = [
  'quantity',
  'fact',
  'machine',
  'control',
  'program',
  'timing',
  'prove',
  'pickup',
  'angle',
  'probe',
  'gauge',
  'ready',
  'hold',
]
const mayImport = {
  quantity: [],
  fact: ['quantity'],
  geometry: [],
  machine: ['quantity'],
  control: ['quantity', 'fact'],
  program: ['quantity', 'fact', 'machine', 'control'],
  timing: ['quantity', 'machine', 'control', 'program'],
  prove: ['quantity', 'fact', 'machine', 'control', 'program', 'timing'],
  pickup: ['quantity', 'fact', 'geometry', 'machine', 'control', 'program'],
  angle: ['quantity', 'fact', 'geometry', 'machine', 'control', 'program', 'pickup'],
  probe: ['quantity', 'fact', 'machine', 'control', 'program', 'pickup'],
  gauge: [],
  ready: ['quantity', 'fact', 'machine'],
  hold: ['quantity', 'fact', 'geometry', 'machine'],
  setup: UNDER_SETUP,
  demo: [...UNDER_SETUP, 'setup'],
}
const TEST = '\\.test\\.ts$'

module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    { name: 'no-unresolved', severity: 'error', from: {}, to: { couldNotResolve: true } },
    {
      name: 'core-imports-no-other-workspace',
      severity: 'error',
      from: { path: '^core/' },
      to: { path: '^(server|web|e2e|bench|scripts)/' },
    },
    {
      name: 'core-is-pure',
      comment:
        'No Node API, no DOM library, no framework: core runs in a page, a worker, a server and a test alike.',
      severity: 'error',
      from: { path: '^core/src/', pathNot: TEST },
      to: { dependencyTypes: ['core', 'npm', 'npm-dev'], pathNot: 'node_modules/(zod|ulid)/' },
    },
    {
      name: 'server-imports-no-page',
      severity: 'error',
      from: { path: '^server/' },
      to: { path: '^(web|e2e)/' },
    },
    {
      name: 'page-imports-no-server',
      severity: 'error',
      from: { path: '^web/' },
      to: { path: '^(server|e2e)/' },
    },
    {
      name: 'core-folders-open-by-their-index',
      severity: 'error',
      from: { path: '^core/src/([^/]+)/' },
      to: { path: '^core/src/([^/]+)/', pathNot: ['^core/src/$1/', '^core/src/[^/]+/index\\.ts$'] },
    },
    {
      name: 'core-opens-by-index-from-outside',
      severity: 'error',
      from: { path: '^(server|web|e2e|bench)/' },
      to: { path: '^core/src/', pathNot: '^core/src/[^/]+/index\\.ts$' },
    },
    {
      name: 'nothing-imports-a-screen',
      comment: 'Only the router knows the pages.',
      severity: 'error',
      from: { path: '^web/src/', pathNot: '^web/src/(app|pages)/' },
      to: { path: '^web/src/pages/' },
    },
    ...Object.entries(mayImport).map(([name, allowed]) => ({
      name: `core-${name}-builds-only-on-what-it-may`,
      severity: 'error',
      from: { path: folder(name), pathNot: TEST },
      to: { path: '^core/src/', pathNot: [folder(name), ...allowed.map(folder)] },
    })),
    {
      name: 'a-core-folder-has-its-line-above',
      comment: 'A new folder in core says in mayImport what it is built on.',
      severity: 'error',
      from: { path: '^core/src/', pathNot: Object.keys(mayImport).map(folder) },
      to: {},
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: 'dist/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'node', 'default'],
      extensions: ['.ts', '.tsx', '.js', '.mjs', '.json'],
    },
  },
}
