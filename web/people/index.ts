import { defineAsyncComponent } from 'vue'

export { default as AccountTable } from './AccountTable.vue'
/** Loaded when it is opened. */
export const AwayForm = defineAsyncComponent(() => import('./AwayForm.vue'))
