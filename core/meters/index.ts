export * from './slope'
export * from './readings'
export * from './checkReading'
export * from './events'
