import { defineAsyncComponent } from 'vue'
import type { OrderSheet } from '#contract/orders'
import type { SheetSection } from '#web/sheets'

/** When whoever does it is let in, and what is out of use meanwhile, on the Sheet of an order. */
export const accessSection: SheetSection<OrderSheet> = {
  anchor: 'window',
  title: 'Access',
  field: 'window',
  component: defineAsyncComponent(() => import('./WindowSection.vue')),
}

/** Times the reporter may choose from, on their private page; loaded where there are some. */
export { default as TrackedTimes } from './TrackedTimes.vue'
