export * from './store'
export * from './section'
