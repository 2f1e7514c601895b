import { addOne, editOne, readOne, restoreOne, retireOne } from '#contract/registers'
import type { RecordSheet } from '#contract/registers'
import { PLACE_FIELDS } from '#core/places'
import type { PlaceFields } from '#core/places'

export type PlaceSheet = RecordSheet<PlaceFields>
export const readPlace = readOne<PlaceFields>('places')
export const addPlace = addOne<PlaceFields, 'code' | 'name' | 'kind'>('places', 'registers.edit', PLACE_FIELDS)
export const editPlace = editOne<PlaceFields>('places', 'registers.edit', PLACE_FIELDS)
export const retirePlace = retireOne<PlaceFields>('places', 'registers.edit')
export const restorePlace = restoreOne<PlaceFields>('places', 'registers.edit')
