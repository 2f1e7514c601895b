export * from './fields'
export * from './values'
export * from './events'
