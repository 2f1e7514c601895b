export * from './board'
