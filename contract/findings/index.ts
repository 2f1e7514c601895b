export * from './recorded'
export * from './decided'
