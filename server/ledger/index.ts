export * from './costs'
export * from './month'
