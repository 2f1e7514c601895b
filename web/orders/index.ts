export { default as OrderSheet } from './OrderSheet.vue'
export { default as PromiseTable } from './PromiseTable.vue'
