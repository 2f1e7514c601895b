import { addOne, editOne, readOne, restoreOne, retireOne } from '#contract/registers'
import type { RecordSheet } from '#contract/registers'
import { VENDOR_FIELDS } from '#core/vendors'
import type { VendorFields } from '#core/vendors'

export type VendorSheet = RecordSheet<VendorFields>
export const readVendor = readOne<VendorFields>('vendors')
export const addVendor = addOne<VendorFields, 'name' | 'email'>('vendors', 'registers.edit', VENDOR_FIELDS)
export const editVendor = editOne<VendorFields>('vendors', 'registers.edit', VENDOR_FIELDS)
export const retireVendor = retireOne<VendorFields>('vendors', 'registers.edit')
export const restoreVendor = restoreOne<VendorFields>('vendors', 'registers.edit')
