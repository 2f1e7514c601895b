export { default as TransferSection } from './TransferSection.vue'
