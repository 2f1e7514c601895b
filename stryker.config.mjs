const room = process.env.EVRIX_ROOM ?? '*'

/** Small faults put into the rules of a room one at a time: a test of that room has to notice each. Run by scripts/mutants.mjs. */
export default {
  mutate: [`core/${room}/**/*.ts`, '!core/**/*.test.ts', '!core/**/index.ts'],
  testRunner: 'jest',
  jest: { configFile: 'jest.core.config.mjs', enableFindRelatedTests: false },
  coverageAnalysis: 'perTest',
  concurrency: 2,
  timeoutMS: 10_000,
  reporters: ['json'],
  jsonReporter: { fileName: `.run/mutants/${room}.json` },
  tempDirName: `.run/stryker-${room}`,
  ignorePatterns: ['dist', '.evrix', '.run', 'web', 'server', 'standins', 'demo', 'coverage'],
  // A fault in a constant of the module itself would need every test run anew: what constants say is held by the tests of what reads them.
  ignoreStatic: true,
}
