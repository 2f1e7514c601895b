export * from './jobs'
export * from './carried'
