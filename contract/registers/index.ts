export * from './record'
