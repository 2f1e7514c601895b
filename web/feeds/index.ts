import { defineAsyncComponent } from 'vue'
import type { AnyRecord } from '#contract/portraits'
import { FEED_REGISTERS } from '#core/feeds'
import type { SheetSection } from '#web/sheets'

/** Calendar feeds of who is sent, and of where they are sent. */
export const feedSection: SheetSection<AnyRecord> = {
  anchor: 'feeds',
  title: 'Calendar feeds',
  shown: ({ register }) => (FEED_REGISTERS as readonly string[]).includes(register),
  component: defineAsyncComponent(() => import('./FeedSection.vue')),
}

/** One’s own visits in one’s own calendar. */
export const MyFeed = defineAsyncComponent(() => import('./MyFeed.vue'))
