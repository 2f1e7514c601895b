export * from './tableRows'
