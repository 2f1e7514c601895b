export * from './board'
export * from './fit'
