export * from './rules'
export * from './intake'
export * from './tables'
export * from './ruleBook'
