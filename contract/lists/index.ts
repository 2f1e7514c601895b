export * from './rows'
export * from './views'
export * from './moves'
export * from './search'
