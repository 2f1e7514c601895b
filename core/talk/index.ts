export * from './audience'
export * from './events'
