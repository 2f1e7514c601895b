export { routes } from './routes'
export * from './works'
export * from './wordings'
