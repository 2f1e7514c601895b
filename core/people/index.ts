export * from './permissions'
export * from './slowing'
