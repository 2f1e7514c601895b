export * from './rules'
export * from './intake'
