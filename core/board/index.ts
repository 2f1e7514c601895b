export * from './board'
export * from './fit'
export * from './load'
