/** What rooms on which this one builds may use of it. */
export * from './myVisit'
