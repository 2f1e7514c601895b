export * from './kinds'
export * from './visits'
export * from './fitness'
export * from './answers'
