export * from './outcome'
export * from './additions'
export * from './clock'
export * from './events'
