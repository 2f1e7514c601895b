import type { AssetFields } from '#core/assets'
import type { DocumentKind } from '#core/documents'
import type { OwnField } from '#core/own'

/** An asset as a COBie workbook can tell of it; its place and what it is part of by their codes. */
export interface CobieAsset extends Pick<
  AssetFields,
  | 'tag'
  | 'name'
  | 'classCode'
  | 'condition'
  | 'criticality'
  | 'owner'
  | 'maker'
  | 'model'
  | 'serial'
  | 'installedOn'
  | 'priceMinor'
  | 'lifeYears'
  | 'warrantyFrom'
  | 'warrantyUntil'
  | 'warrantyCovers'
  | 'warrantyTerms'
  | 'note'
> {
  space: string
  parent: string | null
  vendor: string | null
}

export interface CobiePlace {
  code: string
  name: string
}
export interface CobieSpace extends CobiePlace {
  /** Code of the floor it is on, or of the building itself. */
  floor: string
  payer: string | null
  /** Square metres, where it is drawn. */
  area: number | null
}
export interface CobieVendor {
  name: string
  email: string
  phone: string | null
}
export interface CobieThing {
  code: string
  name: string
}

/** A preventive plan for one asset. */
export interface CobieJob {
  name: string
  tag: string
  /** RFC 5545 RRULE. */
  rule: string
  /** A day, as "2026-11-26". */
  startsOn: string
}
/** A file that came along, kept with what it is of. */
export interface CobieDocument {
  title: string
  kind: DocumentKind
  /** Where it lies beside the workbook, in lower case, with / between. */
  path: string
  on: 'places' | 'assets'
  code: string
}

/** What stands in own fields, in words: by the code or tag of what it is of. */
export interface CobieOwn {
  kind: 'places' | 'assets'
  code: string
  field: Pick<OwnField, 'label' | 'unit'>
  says: string
}

/** Everything a workbook tells of one building. */
export interface CobieBuilding {
  site: { name: string; currency: string }
  building: CobiePlace
  floors: CobiePlace[]
  spaces: CobieSpace[]
  payers: CobieThing[]
  assets: CobieAsset[]
  vendors: CobieVendor[]
  parts: (CobieThing & { unit: string })[]
  equipment: CobieThing[]
  jobs: CobieJob[]
  documents: { title: string; kind: string; file: string; on: 'places' | 'assets'; code: string }[]
  own: CobieOwn[]
}
