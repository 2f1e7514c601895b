export * from './events'
export * from './contact'
