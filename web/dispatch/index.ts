export { default as DispatchForm } from './DispatchForm.vue'
export { default as VisitList } from './VisitList.vue'
