import { defineAsyncComponent } from 'vue'

/** Beside the Board, once somebody asks for a plan. */
export const DayPlanPanel = defineAsyncComponent(() => import('./DayPlanPanel.vue'))

export { leavingKey } from './proposed'
export type { Proposals } from './proposed'
