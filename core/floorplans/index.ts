export * from './shapes'
export * from './planFile'
export * from './events'
