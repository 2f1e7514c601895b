/** Whole servers and browsers take longer than the runner expects of a unit. */
jest.setTimeout(240_000)
