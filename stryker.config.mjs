/** Small faults put into the rules one at a time: a test has to notice each. See docs/mutants.md. */
export default {
  mutate: ['core/**/*.ts', '!core/**/*.test.ts', '!core/**/index.ts'],
  testRunner: 'jest',
  jest: { configFile: 'jest.core.config.mjs', enableFindRelatedTests: true },
  coverageAnalysis: 'perTest',
  concurrency: 2,
  timeoutMS: 10_000,
  reporters: ['clear-text', 'json', 'progress-append-only'],
  clearTextReporter: { allowColor: false, logTests: false, reportTests: false, reportMutants: false },
  jsonReporter: { fileName: '.run/mutants.json' },
  tempDirName: '.run/stryker',
  ignorePatterns: ['dist', '.evrix', '.run', 'web', 'server', 'standins', 'demo', 'coverage'],
  thresholds: { high: 90, low: 85, break: 85 },
}
