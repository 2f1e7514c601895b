import { defineAsyncComponent } from 'vue'
import type { OrderSheet } from '#contract/orders'
import type { SheetSection } from '#web/sheets'

/** Prices vendors were asked for, on the Sheet of an order. */
export const quotesSection: SheetSection<OrderSheet> = {
  anchor: 'prices',
  title: 'Prices',
  component: defineAsyncComponent(() => import('./QuotesSection.vue')),
}
