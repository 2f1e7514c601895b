export * from './outcome'
export * from './additions'
export * from './clock'
