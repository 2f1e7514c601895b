export * from './refusal'
export * from './money'
export * from './workingTime'
export * from './text'
