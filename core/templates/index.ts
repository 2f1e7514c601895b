export * from './templates'
export * from './events'
