export { default as OrderParts } from './OrderParts.vue'
export { default as StockHead } from './StockHead.vue'
export { default as StockForm } from './StockForm.vue'
export * from './finders'
