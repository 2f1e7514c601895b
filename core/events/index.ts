export * from './kinds'
