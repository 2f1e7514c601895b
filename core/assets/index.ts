export * from './fields'
export * from './uniformat'
export * from './warranty'
