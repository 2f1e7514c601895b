export * from './fields'
export * from './iban'
