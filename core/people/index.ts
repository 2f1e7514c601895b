export * from './permissions'
