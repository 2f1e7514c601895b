import { defineAsyncComponent } from 'vue'
import type { OrderSheet } from '#contract/orders'
import type { AnyRecord } from '#contract/portraits'
import type { SheetSection } from '#web/sheets'

/** What a method says is done, on its Portrait. */
export const methodSection: SheetSection<AnyRecord> = {
  anchor: 'method',
  title: 'What is done',
  shown: ({ register }) => register === 'methods',
  component: defineAsyncComponent(() => import('./MethodSection.vue')),
}

/** What is done on an order and what it takes, on its Sheet. */
export const workPlanSection: SheetSection<OrderSheet> = {
  anchor: 'steps',
  title: 'Steps and needs',
  component: defineAsyncComponent(() => import('./WorkPlanSection.vue')),
}

/** One step, for whoever does it elsewhere than on our own pages. */
export const StepRow = defineAsyncComponent(() => import('./StepRow.vue'))
export type { StepActs } from './stepActs'

/** The steps of a job on the phone, loaded beside it. */
export const JobSteps = defineAsyncComponent(() => import('./JobSteps.vue'))
