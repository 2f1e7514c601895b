import { defineAsyncComponent } from 'vue'

export { orderSections } from './sections'

/** The time a vendor proposed, to be taken or not; loaded where there is one. */
export const ProposalBox = defineAsyncComponent(() => import('./ProposalBox.vue'))
export { vendorSays } from './vendorSays'
