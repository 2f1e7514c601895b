export * from './tree'
export * from './ways'
export * from './events'
