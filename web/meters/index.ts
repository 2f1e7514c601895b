import { defineAsyncComponent } from 'vue'
import type { AnyRecord } from '#contract/portraits'
import type { SheetSection } from '#web/sheets'

/** The meters of a job’s asset, on the phone. */
export const JobMeters = defineAsyncComponent(() => import('./JobMeters.vue'))

/** What counts on an asset, and what it showed, on its Portrait. */
export const metersSection: SheetSection<AnyRecord> = {
  anchor: 'meters',
  title: 'Meters',
  shown: ({ register }) => register === 'assets',
  component: defineAsyncComponent(() => import('./MetersSection.vue')),
}
