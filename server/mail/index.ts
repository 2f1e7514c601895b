export * from './mailReader'
export * from './mailroom'
export * from './postman'
export { routes } from './routes'
