import type { FieldTable } from '#core/registers'

export const PLACE_KINDS = ['site', 'building', 'floor', 'space', 'grounds'] as const
export type PlaceKind = (typeof PLACE_KINDS)[number]
export const PLACE_KIND_NAMES: Record<PlaceKind, string> = { site: 'Site', building: 'Building', floor: 'Floor', space: 'Space', grounds: 'Grounds' }

/** What may stand in what. A site stands in nothing. */
const MAY_HOLD: Record<PlaceKind, readonly PlaceKind[]> = {
  site: ['building', 'grounds', 'space'],
  building: ['floor', 'space'],
  floor: ['space'],
  space: ['space'],
  grounds: ['grounds', 'space', 'building'],
}
export const mayHold = (outer: PlaceKind, inner: PlaceKind): boolean => MAY_HOLD[outer].includes(inner)

/** What is kept of a place. */
export interface PlaceFields {
  code: string
  name: string
  kind: PlaceKind
  parentId: number | null
  payerId: number | null
  access: string | null
  position: string | null
}

const WHAT = 'What it is'

export const PLACE_FIELDS: FieldTable<PlaceFields> = {
  code: { label: 'Code', under: WHAT, kind: 'line', most: 32, needed: true, mono: true },
  name: { label: 'Name', under: WHAT, kind: 'line', most: 120, needed: true },
  kind: {
    label: 'Kind',
    under: WHAT,
    kind: 'choice',
    choices: PLACE_KIND_NAMES,
    needed: true,
    fixed: 'A floor stays a floor: what stands in it and its history go by it.',
  },
  parentId: { label: 'Within', under: WHAT, kind: 'named', of: 'place' },
  payerId: { label: 'Payer', under: WHAT, kind: 'named', of: 'payer' },
  access: { label: 'How to get in', under: WHAT, kind: 'text', most: 2000, wide: true },
  position: { label: 'Where it stands', under: WHAT, kind: 'line', most: 40, mono: true },
}
