import { defineAsyncComponent } from 'vue'
import type { OrderSheet } from '#contract/orders'
import type { AnyRecord } from '#contract/portraits'
import type { SheetSection } from '#web/sheets'

/** Spaces taken out of use for an order, on its Sheet. */
export const closureSection: SheetSection<OrderSheet> = {
  anchor: 'closure',
  title: 'Out of use',
  field: 'closure',
  component: defineAsyncComponent(() => import('./ClosureSection.vue')),
}

/** When a space is and was out of use, on its Portrait. */
export const placeClosureSection: SheetSection<AnyRecord> = {
  anchor: 'closures',
  title: 'Out of use',
  shown: (record) => record.register === 'places' && (record as { kind?: string }).kind === 'space',
  component: defineAsyncComponent(() => import('./PlaceClosures.vue')),
}
