export * from './budgets'
export * from './costs'
export * from './month'
export * from './consents'
