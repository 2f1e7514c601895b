import { defineAsyncComponent } from 'vue'

export { default as AccountTable } from './AccountTable.vue'
/** Loaded when it is opened. */
export const AwayForm = defineAsyncComponent(() => import('./AwayForm.vue'))
/** Loaded with the first Portrait of a person. */
export const CrewSection = defineAsyncComponent(() => import('./crew/CrewSection.vue'))
