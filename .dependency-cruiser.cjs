/** Floors know only those below them, and rooms are entered by their door (index.ts). */
const { readdirSync } = require('node:fs')

/** Every folder of a floor is a room. */
const rooms = ['core', 'contract', 'server', 'web']
  .flatMap((floor) => readdirSync(floor, { withFileTypes: true }).filter((entry) => entry.isDirectory()))
  .map((entry) => entry.name)
  .filter((name, index, all) => all.indexOf(name) === index && !['tables', 'migrations'].includes(name))
  .join('|')

module.exports = {
  forbidden: [
    {
      name: 'core-is-pure',
      comment: 'core knows no other floor, no database, no interface.',
      severity: 'error',
      from: { path: '^core/', pathNot: '\\.test\\.ts$' },
      to: { path: '^(contract|server|web|standins|demo|tests)/|node_modules/(express|vue|drizzle-orm|mysql2|naive-ui)/' },
    },
    { name: 'contract-knows-core-only', severity: 'error', from: { path: '^contract/' }, to: { path: '^(server|web|standins|demo|tests)/' } },
    { name: 'server-never-sees-web', severity: 'error', from: { path: '^server/' }, to: { path: '^(web|demo|standins|tests)/' } },
    { name: 'web-never-sees-server', severity: 'error', from: { path: '^web/', pathNot: '\\.test\\.ts$' }, to: { path: '^(server|demo|standins|tests)/' } },
    {
      name: 'screen-tests-use-the-test-kit-only',
      severity: 'error',
      from: { path: '^web/.*\\.test\\.ts$' },
      to: { path: '^(server|demo|standins|tests/(?!kit/))' },
    },
    { name: 'standins-stand-alone', severity: 'error', from: { path: '^standins/' }, to: { path: '^(core|contract|server|web|demo|tests)/' } },
    {
      name: 'server-rooms-by-their-door',
      comment: 'index.ts is what a room does; records.ts is what others write into its tables.',
      severity: 'error',
      from: { path: `^server/(${rooms})/` },
      to: { path: `^server/(${rooms})/(?!(index|records)\\.ts$).+`, pathNot: '^server/$1/' },
    },
    {
      name: 'records-know-kit-and-tables-only',
      comment: 'So that every room may come in by them, whatever builds on what.',
      severity: 'error',
      from: { path: `^server/(${rooms})/records\\.ts$` },
      to: { path: '^server/', pathNot: '^server/(kit/index|tables/.+|[a-z]+/records)\\.ts$' },
    },
    {
      name: 'core-rooms-by-their-door',
      severity: 'error',
      from: { path: `^core/(${rooms})/` },
      to: { path: `^core/(${rooms})/(?!index\\.ts$).+`, pathNot: '^core/$1/' },
    },
    {
      name: 'web-rooms-by-their-door',
      comment: 'What a room shows to others stands in its index.ts; the router alone opens its screens.',
      severity: 'error',
      from: { path: `^web/(${rooms})/`, pathNot: '\\.test\\.ts$' },
      to: { path: `^web/(${rooms})/(?!index\\.ts$).+\\.(ts|vue)$`, pathNot: '^web/$1/' },
    },
    {
      name: 'contract-rooms-by-their-door',
      severity: 'error',
      from: { path: `^contract/(${rooms})/` },
      to: { path: `^contract/(${rooms})/(?!index\\.ts$).+`, pathNot: '^contract/$1/' },
    },
    {
      name: 'upper-floors-use-doors-below',
      severity: 'error',
      from: { path: '^(server|web|demo|tests)/' },
      to: { path: `^(core|contract)/(${rooms})/(?!index\\.ts$).+` },
    },
    {
      name: 'no-circles',
      comment: 'Two files that need each other, by types too, are read as one: what both use goes into a third.',
      severity: 'error',
      // Tables name each other in foreign keys, each in a function that runs once all are there.
      from: { pathNot: '^server/tables/' },
      to: { circular: true },
    },
    { name: 'nothing-unresolved', severity: 'error', from: {}, to: { couldNotResolve: true } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: 'node_modules/.*' },
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
      extensions: ['.ts', '.vue', '.mjs', '.js', '.css'],
    },
  },
}
