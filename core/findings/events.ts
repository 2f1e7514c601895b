import { counted, event } from '#core/kit'
import { FINDING_SEVERITY_NAMES } from './severity'
import type { FindingSeverity } from './severity'

interface FindingFact {
  text: string
  severity: FindingSeverity
  where: string | null
  fixedNow: boolean
}
const named = ({ text, where }: Partial<FindingFact>): string => [where, text].filter(Boolean).join(': ')

/** What can happen to findings. */
export const FINDING_EVENTS = {
  'finding.add': event<FindingFact>()({
    says: 'found',
    about: ({ severity, fixedNow, ...what }) =>
      [named(what), severity && FINDING_SEVERITY_NAMES[severity].toLowerCase(), fixedNow && 'fixed at once'].filter(Boolean).join(', '),
    told: null,
    writes: true,
  }),
  'finding.photo': event<FindingFact>()({ says: 'added a photo of what was found:', about: named, told: null, writes: false }),
  'finding.takeBack': event<FindingFact>()({ says: 'took back a finding:', about: named, told: null, writes: false }),
  'finding.order': event<{ order: string; findings: number }>()({
    says: 'put findings into an order:',
    about: ({ order, findings }) => (order && findings ? `${counted(findings, 'finding')} into ${order}` : ''),
    told: null,
    writes: false,
  }),
  'finding.answer': event<{ findings: number; foundOn: string }>()({
    says: 'has it answer',
    about: ({ findings, foundOn }) => (findings ? `${counted(findings, 'finding')} of ${foundOn}` : ''),
    told: null,
    writes: false,
  }),
  'finding.aside': event<FindingFact>()({ says: 'set a finding aside:', about: named, told: null, writes: false }),
  'finding.takeUp': event<FindingFact>()({ says: 'took a finding up again:', about: named, told: null, writes: false }),
}
