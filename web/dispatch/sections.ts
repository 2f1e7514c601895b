import type { OrderSheet } from '#contract/orders'
import { isUnapproved } from '#core/orders'
import type { SheetSection } from '#web/sheets'
import { VISITS } from './anchor'
import VisitsSection from './VisitsSection.vue'

/** What dispatching brings to the Sheet of an order. */
export const orderSections: SheetSection<OrderSheet>[] = [
  {
    anchor: VISITS,
    title: 'Visits',
    field: 'visits',
    opensAt: ['ready', 'dispatched'],
    empty: ({ visits, state }) => (visits.length ? null : `Nobody has been sent yet${isUnapproved(state) ? '; the order has to be approved first' : ''}.`),
    component: VisitsSection,
    act: { label: 'Dispatch', key: 'd', may: 'orders.dispatch', at: ['ready', 'dispatched'], onwardAt: ['ready'] },
  },
]
