const transform = {
  '^.+\\.(ts|m?js)$': ['@swc/jest', { jsc: { parser: { syntax: 'typescript' }, target: 'es2022' }, module: { type: 'commonjs' } }],
  '^.+\\.vue$': '<rootDir>/tests/kit/vueTransform.mjs',
}
const shared = {
  testEnvironment: 'node',
  setupFilesAfterEnv: ['<rootDir>/tests/kit/patience.ts'],
  transform,
  extensionsToTreatAsEsm: [],
  transformIgnorePatterns: [
    '/node_modules/(?!(email-reply-parser|dayjs-business-time|@tanstack|@vueuse|pinia|nostics|naive-ui|vueuc|@css-render|css-render|@lucide|polylabel|tinyqueue|d3-array|internmap|idb|p-limit|yocto-queue|ml-regression-base|is-any-array)/)',
  ],
}

/** What is handed on from suite to suite: browsers, servers, and what a process has learned. */
const shelves = {
  testEnvironment: '<rootDir>/tests/kit/environment.mjs',
  globalSetup: '<rootDir>/tests/kit/shelfSetUp.mjs',
  globalTeardown: '<rootDir>/tests/kit/shelfTearDown.mjs',
}

/** Three kinds of check: rules on their own, the API on a real database, the interface in a real browser. */
export default {
  projects: [
    { ...shared, displayName: 'unit', testMatch: ['<rootDir>/{core,server,standins,demo,contract,web/devices}/**/*.test.ts'] },
    {
      ...shared,
      displayName: 'screen',
      testMatch: ['<rootDir>/web/**/*.test.ts'],
      // What lies on a device needs no page.
      testPathIgnorePatterns: ['/node_modules/', '<rootDir>/web/devices/'],
      testEnvironment: 'jsdom',
      setupFilesAfterEnv: ['<rootDir>/tests/kit/patience.ts', '<rootDir>/tests/kit/screenSetup.ts'],
      moduleNameMapper: { '^naive-ui/es/(.*)$': 'naive-ui/lib/$1' },
      testEnvironmentOptions: { customExportConditions: ['node', 'node-addons'] },
    },
    { ...shared, ...shelves, displayName: 'api', testMatch: ['<rootDir>/tests/api/**/*.test.ts'] },
    { ...shared, ...shelves, displayName: 'browser', testMatch: ['<rootDir>/tests/browser/**/*.test.ts'] },
  ],
}
