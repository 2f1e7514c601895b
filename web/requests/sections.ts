import type { RequestSheet } from '#contract/requests'
import { isUndecided } from '#core/requests'
import { documentsSection } from '#web/documents'
import { ownSection } from '#web/own'
import type { SheetSection } from '#web/sheets'
import BecameSection from './BecameSection.vue'
import ConversationSection from './ConversationSection.vue'
import DecideSection from './DecideSection.vue'
import ReportSection from './ReportSection.vue'
import RequestTimeline from './RequestTimeline.vue'

/** The Sheet of a request: what is decided, or what became of it, comes first. */
export const REQUEST_SECTIONS: readonly SheetSection<RequestSheet>[] = [
  { anchor: 'decide', title: 'Decide', opensAt: ['new', 'asked'], shown: ({ state }) => isUndecided(state), component: DecideSection },
  {
    anchor: 'became',
    title: 'What became of it',
    opensAt: ['accepted', 'joined', 'declined'],
    shown: ({ state, outcome }) => !isUndecided(state) || !!outcome,
    component: BecameSection,
  },
  { anchor: 'report', title: 'What was reported', component: ReportSection },
  ownSection(() => 'requests'),
  { anchor: 'decided', title: 'What was decided', shown: ({ state }) => !isUndecided(state), component: DecideSection },
  { anchor: 'conversation', title: 'Conversation', component: ConversationSection },
  documentsSection(() => 'requests'),
  { anchor: 'timeline', title: 'Timeline', component: RequestTimeline },
]
