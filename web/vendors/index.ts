import { defineAsyncComponent } from 'vue'

/** Loaded with the first Portrait of a vendor. */
export const ReachSection = defineAsyncComponent(() => import('./ReachSection.vue'))
