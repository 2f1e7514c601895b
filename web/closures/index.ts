import { defineAsyncComponent } from 'vue'
import type { AnyRecord } from '#contract/portraits'
import type { SheetSection } from '#web/sheets'

/** Spaces taken out of use for an order, on its Sheet. */
export { default as OrderClosures } from './OrderClosures.vue'

/** When a space is and was out of use, on its Portrait. */
export const placeClosureSection: SheetSection<AnyRecord> = {
  anchor: 'closures',
  title: 'Out of use',
  shown: (record) => record.register === 'places' && (record as { kind?: string }).kind === 'space',
  component: defineAsyncComponent(() => import('./PlaceClosures.vue')),
}
