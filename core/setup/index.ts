export * from './tableFields'
export * from './tableCells'
export * from './tableRows'
export * from './events'
