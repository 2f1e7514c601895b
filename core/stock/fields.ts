import type { FieldTable } from '#core/registers'
import { MOST_LEAD_DAYS } from './buying'

export interface PartFields {
  code: string
  name: string
  unit: string
  vendorId: number | null
  leadDays: number | null
}
export interface StoreFields {
  name: string
  placeId: number | null
  carriedBy: number | null
}
export interface EquipmentFields {
  tag: string
  name: string
  placeId: number | null
  inspectedUntil: string | null
  perDayMinor: number | null
}

const WHAT = 'What it is'

export const PART_FIELDS: FieldTable<PartFields> = {
  code: { label: 'Code', under: WHAT, kind: 'line', most: 32, needed: true, mono: true },
  name: { label: 'Name', under: WHAT, kind: 'line', most: 120, needed: true },
  unit: { label: 'Unit', under: WHAT, kind: 'line', most: 16, needed: true },
  vendorId: { label: 'Usual vendor', under: 'Buying', kind: 'named', of: 'vendor' },
  leadDays: { label: 'Days to deliver', under: 'Buying', kind: 'count', most: MOST_LEAD_DAYS, unit: 'days' },
}

export const STORE_FIELDS: FieldTable<StoreFields> = {
  name: { label: 'Name', under: WHAT, kind: 'line', most: 80, needed: true },
  placeId: { label: 'Place', under: WHAT, kind: 'named', of: 'place' },
  carriedBy: {
    label: 'Van of',
    under: WHAT,
    kind: 'named',
    of: 'account',
    hint: 'For a store on wheels: whoever drives it takes parts out of it first.',
  },
}

export const EQUIPMENT_FIELDS: FieldTable<EquipmentFields> = {
  tag: { label: 'Tag', under: WHAT, kind: 'line', most: 32, needed: true, mono: true },
  name: { label: 'Name', under: WHAT, kind: 'line', most: 120, needed: true },
  placeId: { label: 'Kept at', under: WHAT, kind: 'named', of: 'place' },
  inspectedUntil: { label: 'Inspected until', under: WHAT, kind: 'day' },
  perDayMinor: { label: 'Charged for a day', under: 'Money', kind: 'money' },
}
