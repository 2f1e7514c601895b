const transform = { '^.+\\.(ts|mjs)$': ['@swc/jest', { jsc: { parser: { syntax: 'typescript' }, target: 'es2022' }, module: { type: 'commonjs' } }] }
const shared = {
  testEnvironment: 'node',
  setupFilesAfterEnv: ['<rootDir>/tests/kit/patience.ts'],
  transform,
  extensionsToTreatAsEsm: [],
  transformIgnorePatterns: ['/node_modules/(?!(dayjs-business-time)/)'],
}

/** Three kinds of check: rules on their own, the API on a real database, the interface in a real browser. */
export default {
  projects: [
    { ...shared, displayName: 'unit', testMatch: ['<rootDir>/{core,server,web,standins,demo,contract}/**/*.test.ts'] },
    { ...shared, displayName: 'api', testMatch: ['<rootDir>/tests/api/**/*.test.ts'] },
    { ...shared, displayName: 'browser', testMatch: ['<rootDir>/tests/browser/**/*.test.ts'] },
  ],
}
