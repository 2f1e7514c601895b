import { addOne, editOne, readOne, restoreOne, retireOne } from '#contract/registers'
import type { RecordSheet } from '#contract/registers'
import { ASSET_FIELDS } from '#core/assets'
import type { AssetFields } from '#core/assets'

export type AssetSheet = RecordSheet<AssetFields>
export const readAsset = readOne<AssetFields>('assets')
export const addAsset = addOne<AssetFields, 'tag' | 'name' | 'placeId' | 'classCode' | 'owner'>('assets', 'registers.edit', ASSET_FIELDS)
export const editAsset = editOne<AssetFields>('assets', 'registers.edit', ASSET_FIELDS)
export const retireAsset = retireOne<AssetFields>('assets', 'registers.edit')
export const restoreAsset = restoreOne<AssetFields>('assets', 'registers.edit')
