export * from './downtimes'
export * from './events'
