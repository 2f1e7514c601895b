export * from './severity'
export * from './findings'
export * from './orderOfFindings'
export * from './events'
