import { formatMinor, WHOLE } from '#core/kit'
import type { Reason } from '#core/kit'
import type { OrderFacts } from './facts'

/** One condition of a move: the reasons it is not met, none when it is. */
export type Need = (facts: OrderFacts) => Reason[]

const when = (missing: boolean, code: string, sentence: string, field?: string): Reason[] => (missing ? [{ code, sentence, field }] : [])

const absent = (value: unknown) => value === null || value === undefined || value === ''

/** What must be known before anybody is asked to approve. Each line points at its field. */
export const completeForApproval: Need = (facts) => [
  ...when(absent(facts.summary), 'summary_missing', 'Write a one-line summary.', 'summary'),
  ...when(absent(facts.description), 'description_missing', 'Describe the work.', 'description'),
  ...when(absent(facts.placeId) && absent(facts.assetId), 'place_missing', 'Choose the place or the asset.', 'placeId'),
  ...when(absent(facts.priority), 'priority_missing', 'Set the priority.', 'consequence'),
  ...when(absent(facts.tradeId), 'trade_missing', 'Choose the trade.', 'tradeId'),
  ...when(absent(facts.teamId), 'team_missing', 'Choose the team.', 'teamId'),
  ...when(absent(facts.leadId), 'lead_missing', 'Choose who leads it.', 'leadId'),
  ...when(absent(facts.supervisorId), 'supervisor_missing', 'Choose who supervises it.', 'supervisorId'),
  ...sharesWhole(facts),
  ...when(facts.estimateMinor === null || facts.estimateMinor <= 0, 'estimate_missing', 'Estimate the cost.', 'estimateMinor'),
]

/** Shares are whole: somebody pays all of it. */
export function sharesWhole(facts: OrderFacts): Reason[] {
  if (!facts.shares.length) return when(true, 'payer_missing', 'Choose who pays.', 'shares')
  const sum = facts.shares.reduce((total, share) => total + share.shareBp, 0)
  return when(sum !== WHOLE, 'shares_not_whole', `The shares add to ${sum / 100} %, not 100 %.`, 'shares')
}

/** The person asking may approve this much. */
export const withinLimit: Need = (facts) => {
  const limit = facts.approvalLimitMinor
  if (limit === null) return when(true, 'not_an_approver', 'You do not approve orders.')
  return when(
    (facts.estimateMinor ?? 0) > limit,
    'over_limit',
    `The estimate of ${formatMinor(facts.estimateMinor ?? 0)} is over your limit of ${formatMinor(limit)}.`,
    'estimateMinor',
  )
}

export const somebodyPlanned: Need = (facts) => when(facts.liveVisits === 0, 'nobody_planned', 'Choose a technician or a vendor first.', 'visits')

export const noClockRunning: Need = (facts) => when(facts.runningStints > 0, 'clock_running', 'Somebody’s clock is still running on it.', 'stints')

/** Symptom, cause and fix are known: what happened, why, and what was done. */
export const outcomeKnown: Need = (facts) => [
  ...when(absent(facts.symptom), 'symptom_missing', 'Say what was wrong (symptom).', 'symptom'),
  ...when(absent(facts.cause), 'cause_missing', 'Say why (cause).', 'cause'),
  ...when(absent(facts.fix), 'fix_missing', 'Say what was done (fix).', 'fix'),
]

export const hoursKnown: Need = (facts) =>
  when(facts.loggedMinutes === 0 && facts.costMinor === 0, 'hours_missing', 'No time, part or bill is recorded on it.', 'stints')

export const billsKnown: Need = (facts) => when(facts.vendorVisitsWithoutBill > 0, 'bill_missing', 'The vendor’s bill is missing.', 'bills')

export const chargesStand: Need = (facts) => when(!facts.posted, 'not_posted', 'Nothing has been posted, so there is nothing to reverse.')

export const somethingToCharge: Need = (facts) => when(facts.costMinor === 0, 'nothing_to_charge', 'There is no cost on it; close it instead.')

export const nothingToCharge: Need = (facts) =>
  when(facts.costMinor !== 0, 'cost_not_posted', `It carries ${formatMinor(facts.costMinor)} that has not been charged; post it instead.`)

export const nothingRecorded: Need = (facts) => when(facts.recorded, 'recorded', 'Something is recorded on it, so it can be cancelled but not discarded.')
