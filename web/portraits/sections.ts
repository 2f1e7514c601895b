import { defineAsyncComponent } from 'vue'
import { TransferSection } from '#web/assets'
import { placeClosureSection } from '#web/closures'
import { downtimesSection } from '#web/downtimes'
import { documentsSection } from '#web/documents'
import { feedSection } from '#web/feeds'
import { PlanSection } from '#web/floorplans'
import { metersSection } from '#web/meters'
import { methodSection } from '#web/methods'
import { ownSection } from '#web/own'
import { CrewSection } from '#web/people'
import { waysSection } from '#web/travel'
import { ReachSection } from '#web/vendors'
import { rotaSection } from '#web/shifts'
import type { SheetSection } from '#web/sheets'
import type { AnyRecord } from '#contract/portraits'
import DoneSection from './DoneSection.vue'
import FactsSection from './FactsSection.vue'
import KnowsSection from './KnowsSection.vue'
import OpenSection from './OpenSection.vue'
import RecordTimeline from './RecordTimeline.vue'
import TalkSection from './TalkSection.vue'
import TreeSection from './TreeSection.vue'
import UpkeepSection from './UpkeepSection.vue'

const hasOrders = ({ register }: AnyRecord) => !['stores'].includes(register)
const stands = ({ register }: AnyRecord) => register === 'places' || register === 'assets'

/** The Portrait, whatever it is of: what it is first, then the work on it, where it stands, what it cost, who knows it. */
export const PORTRAIT_SECTIONS: readonly SheetSection<AnyRecord>[] = [
  { anchor: 'facts', title: 'Facts', component: FactsSection },
  methodSection,
  ownSection(({ register }) => register),
  {
    anchor: 'open',
    title: 'Open work',
    shown: hasOrders,
    empty: ({ work }) => (work.openOrders + work.openRequests ? null : 'Nothing is open on it.'),
    component: OpenSection,
  },
  { anchor: 'crew', title: 'At work', shown: ({ register }) => register === 'people', component: CrewSection },
  rotaSection,
  { anchor: 'reach', title: 'Trades, sites, contacts', shown: ({ register }) => register === 'vendors', component: ReachSection },
  { anchor: 'plan', title: 'On the plan', shown: (record) => stands(record) && (record as { kind?: string }).kind !== 'site', component: PlanSection },
  placeClosureSection,
  waysSection,
  { anchor: 'tree', title: 'Around it', shown: stands, component: TreeSection },
  feedSection,
  documentsSection(({ register }) => register),
  { anchor: 'transfers', title: 'Transfers', shown: ({ register }) => register === 'assets', component: TransferSection },
  { anchor: 'upkeep', title: 'Plans and dues', shown: stands, component: UpkeepSection },
  metersSection,
  downtimesSection,
  {
    anchor: 'movements',
    title: 'Stock and movements',
    shown: ({ register }) => register === 'parts' || register === 'stores',
    component: defineAsyncComponent(() => import('./MovementsSection.vue')),
  },
  {
    anchor: 'bookings',
    title: 'Where it is, and bookings',
    shown: ({ register }) => register === 'equipment',
    component: defineAsyncComponent(() => import('./BookingsSection.vue')),
  },
  { anchor: 'history', title: 'History', shown: hasOrders, component: DoneSection },
  { anchor: 'cost', title: 'Cost by year', shown: hasOrders, component: defineAsyncComponent(() => import('./CostSection.vue')) },
  { anchor: 'knows', title: 'Who knows it', shown: (record) => stands(record), component: KnowsSection },
  { anchor: 'talk', title: 'Conversations', shown: (record) => stands(record) || record.register === 'people', component: TalkSection },
  { anchor: 'timeline', title: 'Timeline', component: RecordTimeline },
]
