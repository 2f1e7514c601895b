import { defineAsyncComponent } from 'vue'
import type { OrderSheet } from '#contract/orders'
import type { SheetSection } from '#web/sheets'

/** What is recorded on the phone, loaded beside the job. */
export const FindingForm = defineAsyncComponent(() => import('./FindingForm.vue'))
export const JobFindings = defineAsyncComponent(() => import('./JobFindings.vue'))
export type { NewlyFound } from './found'

/** What was found on an order, and what it is to put right, on its Sheet. */
export const findingsSection: SheetSection<OrderSheet> = {
  anchor: 'findings',
  title: 'Findings',
  empty: ({ findings }) => (findings.found || findings.answers ? null : 'Nothing was found besides.'),
  component: defineAsyncComponent(() => import('./FindingsSection.vue')),
}
