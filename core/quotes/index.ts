export * from './quotes'
export * from './events'
