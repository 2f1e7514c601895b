export * from './jobs'
export * from './carried'
export * from './crewNow'
export * from './alone'
