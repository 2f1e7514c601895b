export * from './fields'
