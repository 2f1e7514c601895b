export * from './endpoint'
export * from './line'
export * from './problem'
export * as field from './fields'
