export * from './tableRows'
export * from './events'
