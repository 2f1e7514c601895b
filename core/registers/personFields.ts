import type { FieldTable } from './fields'

/** What is kept of a person, whether they have an account or not. */
export interface PersonFields {
  name: string
  title: string | null
  department: string | null
  email: string | null
  phone: string | null
  extension: string | null
  placeId: number | null
  payerId: number | null
}

const WHO = 'Who it is'

export const PERSON_FIELDS: FieldTable<PersonFields> = {
  name: { label: 'Name', under: WHO, kind: 'line', most: 120, needed: true },
  title: { label: 'Role', under: WHO, kind: 'line', most: 120 },
  department: { label: 'Department', under: WHO, kind: 'line', most: 120 },
  email: { label: 'Mail', under: WHO, kind: 'mail' },
  phone: { label: 'Phone', under: WHO, kind: 'line', most: 40, mono: true },
  extension: { label: 'Extension', under: WHO, kind: 'line', most: 12, mono: true },
  placeId: { label: 'Place', under: WHO, kind: 'named', of: 'place' },
  payerId: { label: 'Payer', under: WHO, kind: 'named', of: 'payer' },
}

export interface TeamFields {
  name: string
}

export const TEAM_FIELDS: FieldTable<TeamFields> = { name: { label: 'Name', under: WHO, kind: 'line', most: 80, needed: true } }
