export * from './counter'
export * from './track'
export * from './desk'
export * from './conversation'
