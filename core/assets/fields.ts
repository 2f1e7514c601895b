import type { FieldTable } from '#core/registers'
import { UNIFORMAT } from './uniformat'

export const OWNERS = ['us', 'payer'] as const
export const OWNER_NAMES: Record<(typeof OWNERS)[number], string> = { us: 'Us', payer: 'The payer' }

export const COVERS = ['parts', 'labour', 'both'] as const
export const COVER_NAMES: Record<(typeof COVERS)[number], string> = { parts: 'Parts', labour: 'Labour', both: 'Parts and labour' }

export const CONDITIONS = ['good', 'fair', 'poor', 'failing'] as const
export const CONDITION_NAMES: Record<(typeof CONDITIONS)[number], string> = { good: 'Good', fair: 'Fair', poor: 'Poor', failing: 'Failing' }

export const CRITICALITIES = ['low', 'middling', 'high', 'vital'] as const
export const CRITICALITY_NAMES: Record<(typeof CRITICALITIES)[number], string> = {
  low: 'Low: can be done without',
  middling: 'Middling: missed within days',
  high: 'High: missed at once',
  vital: 'Vital: safety, animals or research hang on it',
}

/** What is kept of an asset. */
export interface AssetFields {
  tag: string
  name: string
  placeId: number
  parentId: number | null
  /** Null while nobody has said of what kind it is: noted during a call, say. */
  classCode: string | null
  condition: (typeof CONDITIONS)[number] | null
  criticality: (typeof CRITICALITIES)[number] | null
  owner: (typeof OWNERS)[number]
  payerId: number | null
  contactId: number | null
  maker: string | null
  model: string | null
  serial: string | null
  installedOn: string | null
  priceMinor: number | null
  lifeYears: number | null
  vendorId: number | null
  warrantyFrom: string | null
  warrantyUntil: string | null
  warrantyCovers: (typeof COVERS)[number] | null
  warrantyTerms: string | null
  successorId: number | null
  note: string | null
}

const WHAT = 'What it is'
const WHOSE = 'Whose it is'
const MADE = 'Make and age'
const WARRANTY = 'Warranty'

export const ASSET_FIELDS: FieldTable<AssetFields> = {
  tag: { label: 'Tag', under: WHAT, kind: 'line', most: 32, needed: true, mono: true },
  name: { label: 'Name', under: WHAT, kind: 'line', most: 120, needed: true },
  placeId: { label: 'Place', under: WHAT, kind: 'named', of: 'place', needed: true },
  parentId: { label: 'Part of', under: WHAT, kind: 'named', of: 'asset' },
  classCode: { label: 'Class', under: WHAT, kind: 'choice', choices: UNIFORMAT },
  condition: { label: 'Condition', under: WHAT, kind: 'choice', choices: CONDITION_NAMES },
  criticality: { label: 'Criticality', under: WHAT, kind: 'choice', choices: CRITICALITY_NAMES },
  owner: { label: 'Belongs to', under: WHOSE, kind: 'choice', choices: OWNER_NAMES, needed: true },
  payerId: { label: 'Payer', under: WHOSE, kind: 'named', of: 'payer' },
  contactId: { label: 'Whom to ask', under: WHOSE, kind: 'named', of: 'person' },
  maker: { label: 'Maker', under: MADE, kind: 'line', most: 80 },
  model: { label: 'Model', under: MADE, kind: 'line', most: 80 },
  serial: { label: 'Serial number', under: MADE, kind: 'line', most: 80, mono: true },
  installedOn: { label: 'Installed', under: MADE, kind: 'day' },
  priceMinor: { label: 'Price', under: MADE, kind: 'money' },
  lifeYears: { label: 'Expected life', under: MADE, kind: 'count', most: 200, unit: 'years' },
  vendorId: { label: 'Vendor', under: MADE, kind: 'named', of: 'vendor' },
  warrantyFrom: { label: 'Warranty from', under: WARRANTY, kind: 'day' },
  warrantyUntil: { label: 'Warranty until', under: WARRANTY, kind: 'day' },
  warrantyCovers: { label: 'Covers', under: WARRANTY, kind: 'choice', choices: COVER_NAMES },
  warrantyTerms: { label: 'Terms', under: WARRANTY, kind: 'text', most: 2000, wide: true },
  successorId: { label: 'Replaced by', under: WHAT, kind: 'named', of: 'asset' },
  note: { label: 'Note', under: WHAT, kind: 'text', most: 4000, wide: true },
}
