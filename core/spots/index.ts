export * from './report'
