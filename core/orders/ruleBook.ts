import { USUAL_WRITING } from '#core/kit'
import type { SiteWriting } from '#core/kit'
import { USUAL_BUYING } from '#core/stock'
import type { BuyingRules } from '#core/stock'
import { USUAL_VENDOR_RULES } from '#core/dispatch'
import type { VendorRules } from '#core/dispatch'
import { USUAL_WEIGHTS } from '#core/dayplans'
import type { PlanWeights } from '#core/dayplans'
import { USUAL_PRIORITY_RULES } from '#core/requests'
import type { PriorityRules } from '#core/requests'
import type { ApprovalRule } from './agreements'
import { USUALLY_NEEDED } from './completenessLines'
import type { CompletenessRules } from './completenessLines'
import type { EscalationRule } from './escalation'
import { USUAL_PLANNING } from './planningRules'
import type { PlanningRules } from './planningRules'
import type { ReasonRule } from './reasonRule'

/** Whether somebody may approve what they submitted: never, or when their own limit, nobody else's, covers it. */
export const OWN_SUBMISSIONS = ['never', 'own_limit'] as const
export type OwnSubmissions = (typeof OWN_SUBMISSIONS)[number]

/** What a site decides about the lifecycle of its orders. */
export interface LifecycleRules {
  completeness: CompletenessRules
  reasons: ReasonRule[]
  approvals: ApprovalRule[]
  escalations: EscalationRule[]
  ownSubmissions: OwnSubmissions
}

/** Everything a site decides by itself, in sections that each change on their own: edited in Setup and in force at once. */
export interface RuleBook extends PriorityRules, LifecycleRules {
  /** How the site writes numbers, days and times. */
  writing: SiteWriting
  planning: PlanningRules
  buying: BuyingRules
  /** What a computed plan pays for. */
  dayPlans: PlanWeights
  /** How long a vendor may be silent. */
  vendors: VendorRules
}
export type RuleSection = keyof RuleBook

/** The part of the rules a Sheet needs to say what is possible before anything is pressed. */
export type OrderRules = Pick<RuleBook, 'completeness' | 'reasons' | 'ownSubmissions'> & Pick<PlanningRules, 'onSpotMinor'>

/** What a site starts with. */
export const DEFAULT_RULES: RuleBook = {
  ...USUAL_PRIORITY_RULES,
  completeness: {
    repair: USUALLY_NEEDED,
    preventive: USUALLY_NEEDED,
    inspection: USUALLY_NEEDED,
    improvement: USUALLY_NEEDED,
    call_back: USUALLY_NEEDED,
  },
  reasons: [],
  approvals: [],
  escalations: [
    { at: 'close', when: { priorities: ['emergency', 'urgent'] }, tell: ['lead'] },
    { at: 'past', when: {}, tell: ['lead', 'supervisor'] },
  ],
  ownSubmissions: 'never',
  writing: USUAL_WRITING,
  planning: USUAL_PLANNING,
  buying: USUAL_BUYING,
  dayPlans: USUAL_WEIGHTS,
  vendors: USUAL_VENDOR_RULES,
}
