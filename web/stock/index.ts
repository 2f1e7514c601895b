export { default as OrderParts } from './OrderParts.vue'
export { default as StockTabs } from './StockTabs.vue'
export { default as StockForm } from './StockForm.vue'
export * from './finders'
