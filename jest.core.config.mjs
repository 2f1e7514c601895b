import config from './jest.config.mjs'

/** The rules of one room on their own, with the table of events that rooms bring theirs to: what the mutation tester runs, over and over. */
const { displayName: _, ...unit } = config.projects[0]
export default { ...unit, testMatch: [process.env.EVRIX_ROOM ?? '*', 'events'].map((room) => `<rootDir>/core/${room}/**/*.test.ts`) }
