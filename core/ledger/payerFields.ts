import type { FieldTable } from '#core/registers'

export const PAYER_KINDS = ['cost_centre', 'grant', 'tenant', 'own'] as const
export const PAYER_KIND_NAMES: Record<(typeof PAYER_KINDS)[number], string> = {
  cost_centre: 'Cost centre',
  grant: 'Grant',
  tenant: 'Tenant',
  own: 'Own cost, not charged on',
}

/** What is kept of a payer. */
export interface PayerFields {
  code: string
  name: string
  kind: (typeof PAYER_KINDS)[number]
  taxBp: number
  email: string | null
  budgetMinor: number | null
  endsOn: string | null
}

const WHO = 'Who it is'
const MONEY = 'Money'

export const PAYER_FIELDS: FieldTable<PayerFields> = {
  code: { label: 'Code', under: WHO, kind: 'line', most: 16, needed: true, mono: true },
  name: { label: 'Name', under: WHO, kind: 'line', most: 120, needed: true },
  kind: { label: 'Kind', under: WHO, kind: 'choice', choices: PAYER_KIND_NAMES, needed: true },
  email: { label: 'Mail', under: WHO, kind: 'mail' },
  taxBp: { label: 'Tax', under: MONEY, kind: 'percent', needed: true },
  budgetMinor: { label: 'Budget for a year', under: MONEY, kind: 'money' },
  endsOn: { label: 'Ends on', under: MONEY, kind: 'day' },
}
