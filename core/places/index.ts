export * from './labels'
export * from './fields'
