export * from './feeds'
export * from './events'
