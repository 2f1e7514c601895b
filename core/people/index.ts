export * from './permissions'
export * from './slowing'
export * from './events'
export * from './crew'
