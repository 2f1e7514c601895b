import { defineAsyncComponent } from 'vue'

/** Fetched after the Counter stands. */
export const CounterFromPlan = defineAsyncComponent(() => import('./CounterFromPlan.vue'))
export { default as DeskFromPlan } from './DeskFromPlan.vue'
/** A plan to look at or to put a pin on; the drawing is loaded with the first. */
export const PlanDrawing = defineAsyncComponent(() => import('./PlanDrawing.vue'))
export { drawingOf } from './drawingOf'
export type { Drawing } from './drawn'
export { default as PlanSection } from './PlanSection.vue'
