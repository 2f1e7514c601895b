import { defineAsyncComponent } from 'vue'

export { default as AloneCard } from './AloneCard.vue'
export { default as ClockCard } from './ClockCard.vue'
export { default as FinishForm } from './FinishForm.vue'
export { default as JobFacts } from './JobFacts.vue'
export { default as SafetyCard } from './SafetyCard.vue'
export { default as NoteForm } from './NoteForm.vue'
export { default as UnsentCard } from './UnsentCard.vue'
export * from './usePhoneJob'
export { orderSections } from './sections'
/** Who is where now, for the desk. */
export const FieldNow = defineAsyncComponent(() => import('./FieldNow.vue'))
/** Whether whoever does it works alone and checks in, on the Sheet. */
export const LoneWork = defineAsyncComponent(() => import('./LoneWork.vue'))
