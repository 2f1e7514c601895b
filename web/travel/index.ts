import { defineAsyncComponent } from 'vue'
import type { AnyRecord } from '#contract/portraits'
import type { SheetSection } from '#web/sheets'

/** How long the ways from a place take. */
export const waysSection: SheetSection<AnyRecord> = {
  anchor: 'ways',
  title: 'Ways from here',
  shown: ({ register }) => register === 'places',
  component: defineAsyncComponent(() => import('./WaysSection.vue')),
}
