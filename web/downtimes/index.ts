import { defineAsyncComponent } from 'vue'
import type { AnyRecord } from '#contract/portraits'
import type { SheetSection } from '#web/sheets'

/** When the asset of a job could not be used, on the phone. */
export const JobDowntimes = defineAsyncComponent(() => import('./JobDowntimes.vue'))

/** When an asset could not be used, on its Portrait. */
export const downtimesSection: SheetSection<AnyRecord> = {
  anchor: 'downtime',
  title: 'Downtime',
  shown: ({ register }) => register === 'assets',
  component: defineAsyncComponent(() => import('./DowntimesSection.vue')),
}
