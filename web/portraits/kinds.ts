import { addAsset, editAsset, readAsset, restoreAsset, retireAsset } from '#contract/assets'
import type { Endpoint } from '#contract/kit'
import { addPayer, editPayer, readPayer, restorePayer, retirePayer } from '#contract/ledger'
import { addPerson, addTeam, editPerson, editTeam, readPerson, readTeam, restorePerson, restoreTeam, retirePerson, retireTeam } from '#contract/people'
import { addPlace, editPlace, readPlace, restorePlace, retirePlace } from '#contract/places'
import type { ById, ByVersion, RecordFrame, RetireInput } from '#contract/registers'
import {
  addEquipment,
  addPart,
  addStore,
  editEquipment,
  editPart,
  editStore,
  readEquipment,
  readPart,
  readStore,
  restoreEquipment,
  restorePart,
  restoreStore,
  retireEquipment,
  retirePart,
  retireStore,
} from '#contract/stock'
import { addVendor, editVendor, readVendor, restoreVendor, retireVendor } from '#contract/vendors'
import { ASSET_FIELDS } from '#core/assets'
import { PAYER_FIELDS } from '#core/ledger'
import { PLACE_FIELDS } from '#core/places'
import { PERSON_FIELDS, TEAM_FIELDS } from '#core/registers'
import type { AnyFieldTable, FieldValue, RegisterName } from '#core/registers'
import { EQUIPMENT_FIELDS, PART_FIELDS, STORE_FIELDS } from '#core/stock'
import { VENDOR_FIELDS } from '#core/vendors'

/** A record of any register: what all have, and its fields by name. */
export type AnyRecord = RecordFrame & { [field: string]: unknown }
export type AnyAdd = { siteId?: number } & { [field: string]: FieldValue | undefined }
export type AnyEdit = ByVersion & { [field: string]: unknown }

/** How a register is read and kept, whatever its fields. */
export interface Kind {
  fields: AnyFieldTable
  /** Whether its records are of a site. */
  ofSite: boolean
  read: Endpoint<ById, AnyRecord>
  add: Endpoint<AnyAdd, AnyRecord>
  edit: Endpoint<AnyEdit, AnyRecord>
  retire: Endpoint<RetireInput, AnyRecord>
  restore: Endpoint<ByVersion, AnyRecord>
}

/** The same for those who look at fields by name only. */
const kind = (ofSite: boolean, fields: object, promised: Record<Exclude<keyof Kind, 'fields' | 'ofSite'>, { path: string }>): Kind =>
  ({ ofSite, fields, ...promised }) as unknown as Kind

export const KINDS: Record<RegisterName, Kind> = {
  places: kind(true, PLACE_FIELDS, { read: readPlace, add: addPlace, edit: editPlace, retire: retirePlace, restore: restorePlace }),
  assets: kind(true, ASSET_FIELDS, { read: readAsset, add: addAsset, edit: editAsset, retire: retireAsset, restore: restoreAsset }),
  people: kind(true, PERSON_FIELDS, { read: readPerson, add: addPerson, edit: editPerson, retire: retirePerson, restore: restorePerson }),
  teams: kind(true, TEAM_FIELDS, { read: readTeam, add: addTeam, edit: editTeam, retire: retireTeam, restore: restoreTeam }),
  vendors: kind(false, VENDOR_FIELDS, { read: readVendor, add: addVendor, edit: editVendor, retire: retireVendor, restore: restoreVendor }),
  payers: kind(false, PAYER_FIELDS, { read: readPayer, add: addPayer, edit: editPayer, retire: retirePayer, restore: restorePayer }),
  parts: kind(false, PART_FIELDS, { read: readPart, add: addPart, edit: editPart, retire: retirePart, restore: restorePart }),
  stores: kind(true, STORE_FIELDS, { read: readStore, add: addStore, edit: editStore, retire: retireStore, restore: restoreStore }),
  equipment: kind(true, EQUIPMENT_FIELDS, {
    read: readEquipment,
    add: addEquipment,
    edit: editEquipment,
    retire: retireEquipment,
    restore: restoreEquipment,
  }),
}
