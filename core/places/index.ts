export * from './labels'
