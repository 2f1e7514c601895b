import config from './jest.config.mjs'

/** The rules on their own: what the mutation tester runs, over and over. */
const { displayName: _, ...unit } = config.projects[0]
export default { ...unit, testMatch: ['<rootDir>/core/**/*.test.ts'] }
