import type { OrderSheet } from '#contract/orders'
import type { SheetSection } from '#web/sheets'
import ChargesSection from './ChargesSection.vue'
import CostSection from './CostSection.vue'

/** What money brings to the Sheet of an order. */
export const orderSections: SheetSection<OrderSheet>[] = [
  {
    anchor: 'cost',
    title: 'Cost',
    field: 'bills',
    empty: ({ costs }) => (costs.length ? null : 'No cost yet: hours, parts and bills appear here by themselves.'),
    component: CostSection,
  },
  {
    anchor: 'charges',
    title: 'Charges',
    opensAt: ['checked'],
    empty: ({ postings }) => (postings.length ? null : 'Nothing has been charged.'),
    component: ChargesSection,
  },
]
