/** Everything that is looked after and has a page of its own, register by register. */
export const REGISTERS = ['places', 'assets', 'people', 'teams', 'vendors', 'payers', 'parts', 'stores', 'equipment', 'methods'] as const
export type RegisterName = (typeof REGISTERS)[number]

export const REGISTER_NAMES: Record<RegisterName, string> = {
  places: 'Places',
  assets: 'Assets',
  people: 'People',
  teams: 'Teams',
  vendors: 'Vendors',
  payers: 'Payers',
  parts: 'Parts',
  stores: 'Stores',
  equipment: 'Equipment',
  methods: 'Methods',
}

/** One of them, as it is spoken of: “a place”. */
export const ONE_OF: Record<RegisterName, { name: string; article: 'a' | 'an' }> = {
  places: { name: 'place', article: 'a' },
  assets: { name: 'asset', article: 'an' },
  people: { name: 'person', article: 'a' },
  teams: { name: 'team', article: 'a' },
  vendors: { name: 'vendor', article: 'a' },
  payers: { name: 'payer', article: 'a' },
  parts: { name: 'part', article: 'a' },
  stores: { name: 'store', article: 'a' },
  equipment: { name: 'piece of equipment', article: 'a' },
  methods: { name: 'method', article: 'a' },
}

/** A record is in use until it is retired; what has history is never deleted. */
export const RECORD_STATES = ['in_use', 'retired'] as const
export type RecordState = (typeof RECORD_STATES)[number]
