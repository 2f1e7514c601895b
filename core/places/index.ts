export * from './codes'
export * from './labels'
export * from './fields'
