export { routes } from './routes'
export * from './works'
