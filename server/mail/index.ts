export * from './postman'
export * from './writeMails'
