import { defineAsyncComponent } from 'vue'
import type { AnyRecord } from '#contract/portraits'
import type { SheetSection } from '#web/sheets'

export { default as OnCallLine } from './OnCallLine.vue'
export { default as LeavePanel } from './LeavePanel.vue'
export { default as LeaveFile } from './LeaveFile.vue'

/** Who of a team is on call, in turn. */
export const rotaSection: SheetSection<AnyRecord> = {
  anchor: 'rota',
  title: 'On call',
  shown: ({ register }) => register === 'teams',
  component: defineAsyncComponent(() => import('./RotaSection.vue')),
}
