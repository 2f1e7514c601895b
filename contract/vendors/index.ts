export * from './pass'
export * from './passWork'
export * from './record'
export * from './reach'
