export { default as CounterFromPlan } from './CounterFromPlan.vue'
export { default as DeskFromPlan } from './DeskFromPlan.vue'
export { default as PlanSection } from './PlanSection.vue'
