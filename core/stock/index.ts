export * from './fields'
export * from './levels'
export * from './events'
