import type { OwnField, OwnValue } from '#core/own'
import type { CobieAsset, CobieDocument, CobieJob, CobieVendor } from './records'
import type { CobieSheet } from './sheets'

/** What is there already, as far as a workbook is held against it. */
export interface CobieKnown {
  currency: string
  /** Of the site; `on` is the code of the floor, grounds or building a space is on. */
  places: { id: number; code: string; name: string; kind: string; on: string | null; payer: string | null }[]
  assets: (CobieAsset & { id: number })[]
  vendors: (CobieVendor & { id: number })[]
  /** Mail addresses of people, of whichever site, in lower case. */
  people: string[]
  payers: { id: number; code: string }[]
  parts: { id: number; code: string; name: string }[]
  equipment: { id: number; code: string; name: string }[]
  ownFields: OwnField[]
  /** By field and code: what stands in it, in words. */
  own: Record<number, Record<string, string>>
  /** What is retired: "place", "asset", "part", "equipment" or "vendor", and its code, name or mail address in lower case. */
  retired: string[]
  jobs: (CobieJob & { id: number })[]
  /** "title code" of each document, in lower case. */
  documents: string[]
  /** The day it is at the site. */
  today: string
  /** What came along with the workbook: paths in lower case, with / between. Null where the workbook came alone. */
  files: string[] | null
}

/** Left: understood, and not taken by a workbook; the sentence says where it is entered. */
export type CobieStanding = 'new' | 'changed' | 'same' | 'bad' | 'left'
export const COBIE_STANDINGS: readonly CobieStanding[] = ['new', 'changed', 'same', 'bad', 'left']

export interface CobieRow {
  sheet: CobieSheet
  /** Of its sheet, from 1; the heading is line 1. */
  line: number
  name: string
  standing: CobieStanding
  sentences: string[]
}

export type Named = { id: number | null; code: string; name: string }
/** Fields of an asset as they would be; those that are not there stay as they are. */
export type CobieAssetFields = Partial<Omit<CobieAsset, 'tag'>>
export interface CobieWrites {
  /** Code of the building all of it is in. */
  within: string
  building: Named | null
  floors: Named[]
  spaces: (Named & { floor: string })[]
  /** Spaces by code, with the code of their payer. */
  payers: { code: string; payer: string }[]
  vendors: (CobieVendor & { id: number | null })[]
  parts: (Named & { unit: string })[]
  equipment: Named[]
  assets: { id: number | null; tag: string; fields: CobieAssetFields }[]
  own: { kind: 'places' | 'assets'; code: string; fieldId: number | null; label: string; value: OwnValue }[]
  jobs: (CobieJob & { id: number | null })[]
  documents: CobieDocument[]
}

export interface ReadCobie {
  rows: CobieRow[]
  counts: Record<CobieSheet, Record<CobieStanding, number>>
  /** Columns and attributes that are no field here: they can be kept as own fields. */
  unknown: { label: string; on: 'places' | 'assets'; rows: number }[]
  writes: CobieWrites
}
