export * from './events'
export * from './kinds'
