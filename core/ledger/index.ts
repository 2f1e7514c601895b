export * from './labour'
export * from './charging'
export * from './posting'
export * from './invoiceTotals'
