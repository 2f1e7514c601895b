export * from './fields'
export * from './iban'
export * from './papers'
export * from './events'
