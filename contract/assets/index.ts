import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import { addOne, editOne, readOne, restoreOne, retireOne } from '#contract/registers'
import type { RecordSheet } from '#contract/registers'
import { ASSET_FIELDS } from '#core/assets'
import type { AssetFields } from '#core/assets'

export type AssetSheet = RecordSheet<AssetFields>
export const readAsset = readOne<AssetFields>('assets')
export const addAsset = addOne<AssetFields, 'tag' | 'name' | 'placeId' | 'owner'>('assets', 'registers.edit', ASSET_FIELDS)
export const editAsset = editOne<AssetFields>('assets', 'registers.edit', ASSET_FIELDS)
export const retireAsset = retireOne<AssetFields>('assets', 'registers.edit')
export const restoreAsset = restoreOne<AssetFields>('assets', 'registers.edit')

/** A machine nobody had entered yet, noted while somebody speaks of it. */
export interface NotedAsset {
  placeId: number
  /** One of the two is enough; without a tag it gets a number. */
  tag?: string
  name?: string
}

export const noteAsset = endpoint<NotedAsset, { id: number; tag: string; name: string }>({
  method: 'POST',
  path: '/api/assets',
  says: 'Enter an asset by its tag or its name and where it stands; the rest is added later. A tag that exists names the one that has it.',
  may: 'requests.triage',
  input: Joi.object<NotedAsset, true>({ placeId: field.id().required(), tag: field.line(32), name: field.line(120) }).or('tag', 'name'),
})

export * from './transfers'
