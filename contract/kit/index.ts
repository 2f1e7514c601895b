export * from './endpoint'
export * from './problem'
export * as field from './fields'
