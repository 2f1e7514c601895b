import { defineAsyncComponent } from 'vue'
import type { OrderSheet } from '#contract/orders'
import type { SheetSection } from '#web/sheets'

/** The conversation of a job on a phone, loaded beside it. */
export const TalkCard = defineAsyncComponent(() => import('./TalkCard.vue'))
export type { Written } from './written'

/** What was said on an order, on its Sheet. */
export const talkSection: SheetSection<OrderSheet> = {
  anchor: 'talk',
  title: 'Conversation',
  opensAt: ['on_job', 'on_hold'],
  component: defineAsyncComponent(() => import('./TalkSection.vue')),
}
