import { addAsset, editAsset, readAsset, restoreAsset, retireAsset } from '#contract/assets'
import type { Endpoint } from '#contract/kit'
import { addMethod, editMethod, readMethod, restoreMethod, retireMethod } from '#contract/methods'
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
import { REGISTER_TABLES } from '#core/lists'
import type { AnyFieldTable, FieldValue, RegisterName } from '#core/registers'

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
const kind = (register: RegisterName, ofSite: boolean, promised: Record<Exclude<keyof Kind, 'fields' | 'ofSite'>, { path: string }>): Kind =>
  ({ ofSite, fields: REGISTER_TABLES[register], ...promised }) as unknown as Kind

export const KINDS: Record<RegisterName, Kind> = {
  places: kind('places', true, { read: readPlace, add: addPlace, edit: editPlace, retire: retirePlace, restore: restorePlace }),
  assets: kind('assets', true, { read: readAsset, add: addAsset, edit: editAsset, retire: retireAsset, restore: restoreAsset }),
  people: kind('people', true, { read: readPerson, add: addPerson, edit: editPerson, retire: retirePerson, restore: restorePerson }),
  teams: kind('teams', true, { read: readTeam, add: addTeam, edit: editTeam, retire: retireTeam, restore: restoreTeam }),
  vendors: kind('vendors', false, { read: readVendor, add: addVendor, edit: editVendor, retire: retireVendor, restore: restoreVendor }),
  payers: kind('payers', false, { read: readPayer, add: addPayer, edit: editPayer, retire: retirePayer, restore: restorePayer }),
  parts: kind('parts', false, { read: readPart, add: addPart, edit: editPart, retire: retirePart, restore: restorePart }),
  stores: kind('stores', true, { read: readStore, add: addStore, edit: editStore, retire: retireStore, restore: restoreStore }),
  equipment: kind('equipment', true, {
    read: readEquipment,
    add: addEquipment,
    edit: editEquipment,
    retire: retireEquipment,
    restore: restoreEquipment,
  }),
  methods: kind('methods', false, { read: readMethod, add: addMethod, edit: editMethod, retire: retireMethod, restore: restoreMethod }),
}
