export * from './kinds'
export * from './fitness'
