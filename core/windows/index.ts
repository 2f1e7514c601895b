export * from './windows'
export * from './events'
