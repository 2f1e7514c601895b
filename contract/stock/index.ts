import { addOne, editOne, readOne, restoreOne, retireOne } from '#contract/registers'
import type { RecordSheet } from '#contract/registers'
import { EQUIPMENT_FIELDS, PART_FIELDS, STORE_FIELDS } from '#core/stock'
import type { EquipmentFields, PartFields, StoreFields } from '#core/stock'

export type PartSheet = RecordSheet<PartFields>
export const readPart = readOne<PartFields>('parts')
export const addPart = addOne<PartFields, 'code' | 'name' | 'unit'>('parts', 'registers.edit', PART_FIELDS)
export const editPart = editOne<PartFields>('parts', 'registers.edit', PART_FIELDS)
export const retirePart = retireOne<PartFields>('parts', 'registers.edit')
export const restorePart = restoreOne<PartFields>('parts', 'registers.edit')

export type StoreSheet = RecordSheet<StoreFields>
export const readStore = readOne<StoreFields>('stores')
export const addStore = addOne<StoreFields, 'name'>('stores', 'registers.edit', STORE_FIELDS)
export const editStore = editOne<StoreFields>('stores', 'registers.edit', STORE_FIELDS)
export const retireStore = retireOne<StoreFields>('stores', 'registers.edit')
export const restoreStore = restoreOne<StoreFields>('stores', 'registers.edit')

export type EquipmentSheet = RecordSheet<EquipmentFields>
export const readEquipment = readOne<EquipmentFields>('equipment')
export const addEquipment = addOne<EquipmentFields, 'tag' | 'name'>('equipment', 'registers.edit', EQUIPMENT_FIELDS)
export const editEquipment = editOne<EquipmentFields>('equipment', 'registers.edit', EQUIPMENT_FIELDS)
export const retireEquipment = retireOne<EquipmentFields>('equipment', 'registers.edit')
export const restoreEquipment = restoreOne<EquipmentFields>('equipment', 'registers.edit')

export * from './counts'
export * from './movements'
export * from './purchases'
export * from './toBuy'
