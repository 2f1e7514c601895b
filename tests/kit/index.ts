export * from './cases'
export * from './client'
export * from './house'
