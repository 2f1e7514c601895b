export * from './documents'
export * from './events'
