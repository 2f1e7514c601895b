import { defineAsyncComponent } from 'vue'

/** Fetched after the Counter stands. */
export const CounterFromPlan = defineAsyncComponent(() => import('./CounterFromPlan.vue'))
export { default as DeskFromPlan } from './DeskFromPlan.vue'
export { default as PlanSection } from './PlanSection.vue'
