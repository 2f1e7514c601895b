export { default as SetupTabs } from './SetupTabs.vue'
