import type { Likelihood, Severity } from '#core/requests'
import type { OpenAsk } from './agreements'
import type { ConditionFacts } from './conditions'
import type { OrderRules } from './ruleBook'
import type { OrderState } from './states'

/**
 * What the rules need to know of an order, and of the person asking, to say which moves are open.
 * The server makes it, the Sheet carries it, so that both ask the same table.
 */
export interface OrderFacts extends ConditionFacts {
  heldFrom: OrderState | null
  summary: string
  description: string
  placeId: number | null
  assetId: number | null
  categoryId: number | null
  tradeId: number | null
  teamId: number | null
  leadId: number | null
  supervisorId: number | null
  /** The limit of the person asking, in minor units; null when they approve nothing. */
  approvalLimitMinor: number | null
  /** The same of their own alone, without what is lent; null when they approve nothing here. */
  ownLimitMinor: number | null
  /** The person asking submitted it themselves. */
  submittedByMe: boolean
  liveVisits: number
  runningStints: number
  loggedMinutes: number
  /** Visits by a vendor for which no bill has been entered. */
  vendorVisitsWithoutBill: number
  /** Steps that have to be done before anybody goes, and are not. */
  stepsFirst: string[]
  /** Equipment that is handed out for it and not given back, by name. */
  equipmentOut: string[]
  /** What is planned, in minor units, once that has grown beyond what was agreed to by more than the site lets pass. */
  outgrownMinor: number | null
  symptom: string | null
  cause: string | null
  fix: string | null
  costMinor: number
  /** Charges stand, and have not been reversed. */
  posted: boolean
  /** Anything was ever logged, used, billed or said on it. */
  recorded: boolean
  discarded: boolean
  hazardSeverity: Severity | 'none' | null
  hazardLikelihood: Likelihood | null
  contactName: string | null
  access: string | null
  noteForPayer: string | null
  /** The agreements asked for when it was last submitted; none before that. */
  asks: OpenAsk[]
  /** Members of its group that are not over. */
  openMembers: string[]
  rules: OrderRules
}
