export { default as ContextPane } from './ContextPane.vue'
