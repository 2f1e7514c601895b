import { formatMinor } from '#core/kit'
import type { Reason } from '#core/kit'
import type { OrderFacts } from './facts'

/** One condition of a move: the reasons it is not met, none when it is. */
export type Need = (facts: OrderFacts) => Reason[]

const when = (missing: boolean, code: string, sentence: string, field?: string): Reason[] => (missing ? [{ code, sentence, field }] : [])

const absent = (value: unknown) => value === null || value === undefined || value === ''

export const somebodyPlanned: Need = (facts) => when(facts.liveVisits === 0, 'nobody_planned', 'Choose a technician or a vendor first.', 'visits')

/** What is planned has not grown beyond what was agreed to, by more than the site lets pass. */
export const stillAgreed: Need = ({ outgrownMinor, estimateMinor }) =>
  when(
    outgrownMinor !== null,
    'outgrown',
    `What is planned comes to ${formatMinor(outgrownMinor ?? 0)}; ${formatMinor(estimateMinor ?? 0)} was agreed to. Ask for approval again, or plan less.`,
    'estimate',
  )

/** There is something to ask about again. */
export const hasGrown: Need = ({ outgrownMinor }) => when(outgrownMinor === null, 'agreed', 'What is planned is within what was agreed to.', 'estimate')

/** The site lets work be started on the spot, by whoever stands there, up to an amount. */
export const mayBeginHere: Need = ({ rules: { onSpotMinor }, estimateMinor }) =>
  onSpotMinor === null
    ? [{ code: 'not_on_spot', sentence: 'Nothing is started on the spot at this site: report it, and the desk sends somebody.' }]
    : when((estimateMinor ?? 0) > onSpotMinor, 'over_on_spot', 'It is larger than what may be started on the spot: report it instead.', 'estimateMinor')

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

/** What was lent to it is back, so that it is known for how long. */
export const equipmentBack: Need = ({ equipmentOut }) =>
  when(
    equipmentOut.length > 0,
    'equipment_out',
    `${equipmentOut.join(', ')} ${equipmentOut.length > 1 ? 'are' : 'is'} still with somebody: take ${equipmentOut.length > 1 ? 'them' : 'it'} back first.`,
    'equipment',
  )

export const chargesStand: Need = (facts) => when(!facts.posted, 'not_posted', 'Nothing has been posted, so there is nothing to reverse.')

export const somethingToCharge: Need = (facts) => when(facts.costMinor === 0, 'nothing_to_charge', 'There is no cost on it; close it instead.')

export const nothingToCharge: Need = (facts) =>
  when(facts.costMinor !== 0, 'cost_not_posted', `It carries ${formatMinor(facts.costMinor)} that has not been charged; post it instead.`)

export const nothingRecorded: Need = (facts) => when(facts.recorded, 'recorded', 'Something is recorded on it, so it can be cancelled but not discarded.')

/** A lead order ends after its members, or without them once the person has said what becomes of each. */
export const membersOver: Need = (facts) =>
  when(
    facts.openMembers.length > 0,
    'members_open',
    `It leads ${facts.openMembers.join(', ')}, which ${facts.openMembers.length > 1 ? 'are' : 'is'} not over: say first what becomes of ${facts.openMembers.length > 1 ? 'them' : 'it'}.`,
    'members',
  )

/** Nobody goes before steps that have to be done first, unless somebody says why. @param despite what was said */
export const stepsBefore = ({ stepsFirst }: Pick<OrderFacts, 'stepsFirst'>, despite: string | null): Reason[] =>
  when(
    stepsFirst.length > 0 && !despite?.trim(),
    'steps_first',
    `${stepsFirst.length > 1 ? 'These steps have' : 'This step has'} to be done before anybody goes: ${stepsFirst.map((text) => `“${text}”`).join(', ')}. Do ${stepsFirst.length > 1 ? 'them' : 'it'} first, or say why somebody goes all the same.`,
    'despiteSteps',
  )
