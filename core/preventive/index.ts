export * from './rule'
