export * from './outcome'
export * from './additions'
