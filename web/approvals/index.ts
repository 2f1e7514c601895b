export { default as UnableList } from './UnableList.vue'
