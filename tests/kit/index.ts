export * from './cases'
export * from './client'
export * from './desk'
export * from './house'
