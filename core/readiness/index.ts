export * from './readiness'
export * from './events'
