import type { Reason } from '#core/kit'

export const DOCUMENT_KINDS = ['manual', 'certificate', 'contract', 'warranty', 'drawing', 'photo', 'other'] as const
export type DocumentKind = (typeof DOCUMENT_KINDS)[number]
export const DOCUMENT_KIND_NAMES: Record<DocumentKind, string> = {
  manual: 'Manual',
  certificate: 'Certificate',
  contract: 'Contract',
  warranty: 'Warranty',
  drawing: 'Drawing',
  photo: 'Photo',
  other: 'Other',
}

/** Who may see a document besides the desk, which sees them all. */
export const AUDIENCES = ['technician', 'vendor', 'payer', 'reporter'] as const
export type Audience = (typeof AUDIENCES)[number]
export const AUDIENCE_NAMES: Record<Audience, string> = { technician: 'Technicians', vendor: 'Vendors', payer: 'Payers', reporter: 'Reporters' }

/** What is said of a document; days as "2026-11-26". */
export interface DocumentFields {
  kind: DocumentKind
  title: string
  validFrom: string | null
  /** Its last day. */
  validUntil: string | null
  /** How many days before its end somebody is reminded. */
  remindDays: number | null
  audience: Audience[]
}

export const USUAL_REMIND_DAYS = 30
export const MOST_REMIND_DAYS = 365

export const DOCUMENT_STANDINGS = ['coming', 'valid', 'ending', 'ended'] as const
export type DocumentStanding = (typeof DOCUMENT_STANDINGS)[number]
export const DOCUMENT_STANDING_NAMES: Record<DocumentStanding, string> = { coming: 'Not valid yet', valid: 'Valid', ending: 'Ends soon', ended: 'Ended' }

/** The day from which somebody is reminded; null where there is no end or nobody wants to be. */
export function remindOn({ validUntil, remindDays }: Pick<DocumentFields, 'validUntil' | 'remindDays'>): string | null {
  return validUntil && remindDays !== null ? dayBefore(validUntil, remindDays) : null
}

/** @param days how many before; 0 is the day itself */
export function dayBefore(day: string, days: number): string {
  const [year, month, date] = day.split('-').map(Number) as [number, number, number]
  return new Date(Date.UTC(year, month - 1, date - days)).toISOString().slice(0, 10)
}

/** How a document stands on a day. It holds on its last day. */
export function documentStanding(document: Pick<DocumentFields, 'validFrom' | 'validUntil' | 'remindDays'>, today: string): DocumentStanding {
  const { validFrom, validUntil, remindDays } = document
  if (validUntil && validUntil < today) return 'ended'
  if (validFrom && validFrom > today) return 'coming'
  if (!validUntil) return 'valid'
  return dayBefore(validUntil, remindDays ?? USUAL_REMIND_DAYS) <= today ? 'ending' : 'valid'
}

/** Whether those outside the desk are shown it on a day. */
export const isInForce = (document: Pick<DocumentFields, 'validFrom' | 'validUntil' | 'remindDays'>, today: string): boolean =>
  ['valid', 'ending'].includes(documentStanding(document, today))

/** What is wrong with what is said of a document. */
export function documentReasons({ validFrom, validUntil, remindDays }: Pick<DocumentFields, 'validFrom' | 'validUntil' | 'remindDays'>): Reason[] {
  const reasons: Reason[] = []
  if (validFrom && validUntil && validUntil < validFrom)
    reasons.push({ code: 'ends_before', sentence: 'It would end before it begins to be valid.', field: 'validUntil' })
  if (remindDays !== null && !validUntil)
    reasons.push({ code: 'no_end', sentence: 'Say until when it is valid, or leave the reminder away.', field: 'remindDays' })
  return reasons
}

/** How much of a document is found by its words, in characters: about forty pages. */
export const MOST_WORDS = 100_000

/** What a document is found by: its title, the name of its file, and the words inside. */
export const documentWords = (title: string, fileName: string, inside: string | null): string =>
  [title, fileName.replace(/\.[a-z0-9]{1,5}$/i, '').replace(/[-_]+/g, ' '), (inside ?? '').replace(/\s+/g, ' ')].join(' ').slice(0, MOST_WORDS)
