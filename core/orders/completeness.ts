import type { Reason } from '#core/kit'
import { ALWAYS_NEEDED, COMPLETENESS_LINES } from './completenessLines'
import type { CompletenessLine } from './completenessLines'
import { sharesWhole } from './shares'
import type { OrderFacts } from './facts'

const absent = (value: unknown) => value === null || value === undefined || value === ''
const line = (name: string, sentence: string, field: string, missing: (facts: OrderFacts) => boolean) => ({ name, sentence, field, missing })

/** Each line with its name, the sentence when it is missing, and the field it is at. */
export const COMPLETENESS: Record<CompletenessLine, ReturnType<typeof line>> = {
  summary: line('Summary', 'Write a one-line summary.', 'summary', (facts) => absent(facts.summary)),
  description: line('Description', 'Describe the work.', 'description', (facts) => absent(facts.description)),
  place: line('Place or asset', 'Choose the place or the asset.', 'placeId', (facts) => absent(facts.placeId) && absent(facts.assetId)),
  asset: line('Asset', 'Choose the asset.', 'assetId', (facts) => absent(facts.assetId)),
  category: line('Category', 'Choose what it is about.', 'categoryId', (facts) => absent(facts.categoryId)),
  priority: line('Priority', 'Set the priority.', 'consequence', (facts) => absent(facts.priority)),
  hazards: line(
    'Hazards',
    'Say how severe and how likely its hazards are, or that there are none.',
    'hazardSeverity',
    (facts) => absent(facts.hazardSeverity) || (facts.hazardSeverity !== 'none' && absent(facts.hazardLikelihood)),
  ),
  trade: line('Trade', 'Choose the trade.', 'tradeId', (facts) => absent(facts.tradeId)),
  team: line('Team', 'Choose the team.', 'teamId', (facts) => absent(facts.teamId)),
  lead: line('Who leads it', 'Choose who leads it.', 'leadId', (facts) => absent(facts.leadId)),
  supervisor: line('Who supervises it', 'Choose who supervises it.', 'supervisorId', (facts) => absent(facts.supervisorId)),
  contact: line('Contact on site', 'Say whom to ask for on site.', 'contactName', (facts) => absent(facts.contactName)),
  access: line('Getting in', 'Say how to get in.', 'access', (facts) => absent(facts.access)),
  noteForPayer: line('Note for the payer', 'Write the note for the payer.', 'noteForPayer', (facts) => absent(facts.noteForPayer)),
  payer: line('Payer', 'Choose who pays.', 'shares', () => false),
  estimate: line('Estimate', 'Estimate the cost.', 'estimateMinor', (facts) => facts.estimateMinor === null || facts.estimateMinor <= 0),
}

/** What is missing before anybody is asked to approve, in the order of the Sheet; each line points at its field. */
export function completeForApproval(facts: OrderFacts): Reason[] {
  const needed = new Set([...ALWAYS_NEEDED, ...facts.rules.completeness[facts.kind]])
  return COMPLETENESS_LINES.filter((one) => needed.has(one)).flatMap((one) => {
    if (one === 'payer') return sharesWhole(facts)
    const { missing, sentence, field } = COMPLETENESS[one]
    return missing(facts) ? [{ code: `${one}_missing`, sentence, field }] : []
  })
}
