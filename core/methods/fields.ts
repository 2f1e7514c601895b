import { UNIFORMAT } from '#core/assets'
import { ORDER_KIND_NAMES } from '#core/orders'
import type { OrderKind } from '#core/orders'
import { READINESS_NAMES as LEAVES_NAMES } from '#core/readiness'
import type { Readiness as Leaves } from '#core/readiness'
import type { FieldTable } from '#core/registers'

/** In what state a job leaves the space it is done in. */
export { READINESS as LEAVES, READINESS_NAMES as LEAVES_NAMES } from '#core/readiness'
export type { Readiness as Leaves } from '#core/readiness'

/** What is kept of a method, besides what is done: where it fits. */
export interface MethodFields {
  code: string
  name: string
  kind: OrderKind | null
  tradeId: number | null
  categoryId: number | null
  classCode: string | null
  leaves: Leaves | null
  note: string | null
}

const WHAT = 'What it is'
const FITS = 'Where it fits'

export const METHOD_FIELDS: FieldTable<MethodFields> = {
  code: { label: 'Code', under: WHAT, kind: 'line', most: 16, needed: true, mono: true },
  name: { label: 'Name', under: WHAT, kind: 'line', most: 120, needed: true },
  kind: { label: 'Kind of work', under: FITS, kind: 'choice', choices: ORDER_KIND_NAMES },
  classCode: { label: 'Class of asset', under: FITS, kind: 'choice', choices: UNIFORMAT },
  categoryId: { label: 'Category', under: FITS, kind: 'named', of: 'category' },
  tradeId: { label: 'Trade', under: FITS, kind: 'named', of: 'trade' },
  leaves: { label: 'Space afterwards', under: WHAT, kind: 'choice', choices: LEAVES_NAMES },
  note: { label: 'Note', under: WHAT, kind: 'text', most: 4000, wide: true },
}
