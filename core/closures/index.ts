export * from './closures'
export * from './events'
