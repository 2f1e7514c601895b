import type { OrderSheet } from '#contract/orders'
import type { SheetSection } from '#web/sheets'
import WorkSection from './WorkSection.vue'

/** What the work on site brings to the Sheet of an order. */
export const orderSections: SheetSection<OrderSheet>[] = [
  {
    anchor: 'work',
    title: 'Work',
    field: 'stints',
    opensAt: ['on_job', 'on_hold'],
    empty: ({ stints }) => (stints.length ? null : 'No time has been logged.'),
    component: WorkSection,
  },
]
