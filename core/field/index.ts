export * from './outcome'
