export * from './bring'
export * from './copies'
