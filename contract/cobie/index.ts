import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { CobieRow, CobieSheet, CobieStanding, ReadCobie } from '#core/cobie'

export interface CobieReport {
  /** What is not as it is already; at most 300, what cannot be taken first. */
  rows: CobieRow[]
  counts: Record<CobieSheet, Record<CobieStanding, number>>
  unknown: ReadCobie['unknown']
  taken: boolean
}

interface TakeCobie {
  siteId: number
  name?: string
  /** Take the good rows in; without it, only look. */
  take?: boolean
  /** Keep what is no field here as own fields. */
  own?: boolean
}

export const takeCobie = endpoint<TakeCobie, CobieReport>({
  method: 'POST',
  path: '/api/cobie/:siteId',
  says: 'Hold a COBie workbook (2.4, XLSX) of one building, alone or in a ZIP with its files, against the registers; with "take", take in what is good in it.',
  may: 'registers.edit',
  upload: true,
  input: Joi.object<TakeCobie, true>({ siteId: field.id().required(), name: Joi.string().max(200), take: Joi.boolean(), own: Joi.boolean() }),
})

export const giveCobie = endpoint<{ id: number }, Blob>({
  method: 'GET',
  path: '/api/cobie/buildings/:id',
  says: 'A building, or grounds, as a COBie workbook (2.4, XLSX).',
  may: 'desk.read',
  answers: 'file',
  input: Joi.object<{ id: number }, true>({ id: field.id().required() }),
})

export interface CobieBuildingRow {
  id: number
  siteId: number
  code: string
  name: string
  spaces: number
  assets: number
}

export const listCobieBuildings = endpoint<object, { rows: CobieBuildingRow[] }>({
  method: 'GET',
  path: '/api/cobie/buildings',
  says: 'The buildings and grounds there are, with how much stands in each.',
  may: 'desk.read',
})
