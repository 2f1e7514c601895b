import type { FieldTable } from '#core/registers'

/** What is kept of a vendor; a name and a mail address are enough to begin with. */
export interface VendorFields {
  name: string
  email: string
  service: string | null
  contactName: string | null
  phone: string | null
  callOutMinor: number | null
  perHourMinor: number | null
  markupBp: number | null
  minimumMinutes: number | null
  stepMinutes: number | null
  contractNumber: string | null
  contractUntil: string | null
  insuranceUntil: string | null
  licenceUntil: string | null
  /** These two are there for who pays alone. */
  bankName?: string | null
  iban?: string | null
  note: string | null
}

const WHO = 'Who they are'
const TERMS = 'Terms'
const PAPERS = 'Papers'

export const VENDOR_FIELDS: FieldTable<VendorFields> = {
  name: { label: 'Name', under: WHO, kind: 'line', most: 120, needed: true },
  email: { label: 'Mail', under: WHO, kind: 'mail', needed: true },
  service: { label: 'Service', under: WHO, kind: 'line', most: 120 },
  contactName: { label: 'Contact', under: WHO, kind: 'line', most: 120 },
  phone: { label: 'Phone', under: WHO, kind: 'line', most: 40, mono: true },
  callOutMinor: { label: 'Call-out', under: TERMS, kind: 'money' },
  perHourMinor: { label: 'Rate for an hour', under: TERMS, kind: 'money' },
  markupBp: { label: 'Markup', under: TERMS, kind: 'percent' },
  minimumMinutes: { label: 'Least that is charged', under: TERMS, kind: 'count', most: 1440, unit: 'minutes' },
  stepMinutes: { label: 'Rounded up to', under: TERMS, kind: 'count', most: 480, unit: 'minutes' },
  contractNumber: { label: 'Contract', under: PAPERS, kind: 'line', most: 60, mono: true },
  contractUntil: { label: 'Contract until', under: PAPERS, kind: 'day' },
  insuranceUntil: { label: 'Insured until', under: PAPERS, kind: 'day' },
  licenceUntil: { label: 'Licence until', under: PAPERS, kind: 'day' },
  bankName: { label: 'Bank', under: PAPERS, kind: 'line', most: 80, may: 'ledger.post' },
  iban: { label: 'IBAN', under: PAPERS, kind: 'line', most: 42, mono: true, may: 'ledger.post' },
  note: { label: 'Note', under: WHO, kind: 'text', most: 4000, wide: true },
}
