export * from './priority'
export * from './hazard'
export * from './lifecycle'
export * from './progress'
