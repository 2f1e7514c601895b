export { default as CostLine } from './CostLine.vue'
export { default as PostingList } from './PostingList.vue'
export { orderSections } from './sections'
