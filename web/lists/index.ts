export * from './found'
