import type { OrderSheet } from '#contract/orders'
import { isFinished } from '#core/orders'
import { orderSections as ofDispatch } from '#web/dispatch'
import { documentsSection } from '#web/documents'
import { orderSections as ofField } from '#web/field'
import { orderSections as ofLedger } from '#web/ledger'
import { findingsSection } from '#web/findings'
import { workPlanSection } from '#web/methods'
import { ownSection } from '#web/own'
import { quotesSection } from '#web/quotes'
import { talkSection } from '#web/talk'
import type { SheetSection } from '#web/sheets'
import { accessSection } from '#web/windows'
import AgreementSection from './AgreementSection.vue'
import GroupSection from './GroupBox.vue'
import OrderFacts from './OrderFacts.vue'
import OrderTimeline from './OrderTimeline.vue'
import OutcomeSection from './OutcomeSection.vue'
import PlanSection from './PlanSection.vue'

/** The Sheet of an order, from its rooms: what is decided where it stands comes first, the rest in this order. */
export const ORDER_SECTIONS: readonly SheetSection<OrderSheet>[] = [
  { anchor: 'plan', title: 'Plan', opensAt: ['draft'], shown: ({ state }) => state === 'draft', component: PlanSection },
  { anchor: 'outcome', title: 'Outcome', opensAt: ['done'], shown: ({ state }) => isFinished(state), component: OutcomeSection },
  { anchor: 'what', title: 'Facts', component: OrderFacts },
  ownSection(() => 'orders'),
  workPlanSection,
  accessSection,
  { anchor: 'approval', title: 'Approval', opensAt: ['to_approve'], component: AgreementSection },
  { anchor: 'group', title: 'Group', field: 'members', component: GroupSection },
  quotesSection,
  ...ofDispatch,
  ...ofField,
  findingsSection,
  talkSection,
  ...ofLedger,
  documentsSection(() => 'orders'),
  { anchor: 'timeline', title: 'Timeline', component: OrderTimeline },
]
